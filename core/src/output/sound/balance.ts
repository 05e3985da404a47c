import type { Role } from '../../document/tab.ts'

/** How loud a voice is, in words. */
export const LOUDNESSES = ['full', 'soft', 'off'] as const
export type Loudness = (typeof LOUDNESSES)[number]

/** How loud each voice is; one that is not named is full. */
export type Balance = Readonly<Partial<Record<Role, Loudness>>>

/** Share of the velocity: 0 is not sounded at all. Soft is about 9 dB less. No source. */
const GAINS: Readonly<Record<Loudness, number>> = { full: 1, soft: 0.35, off: 0 }

/** What is left of the velocity of a voice's notes. */
export const gainOf = (balance: Balance | undefined, role: Role): number => GAINS[balance?.[role] ?? 'full']
