import type { Role } from '../../document/tab.ts'

/** How loud a voice is, in words. */
export const LOUDNESSES = ['full', 'soft', 'off'] as const
export type Loudness = (typeof LOUDNESSES)[number]

/** What can be heard beside the notes. */
export type Beside = 'metronome' | 'counting'

/** How loud each voice is; one that is not named is full, but the metronome and the counting are off. */
export type Balance = Readonly<Partial<Record<Role | Beside, Loudness>>>

/** Share of the velocity: 0 is not sounded at all. Soft is about 9 dB less. No source. */
const GAINS: Readonly<Record<Loudness, number>> = { full: 1, soft: 0.35, off: 0 }

/** What is left of the velocity of a voice's notes. */
export const gainOf = (balance: Balance | undefined, voice: Role | Beside): number =>
  GAINS[balance?.[voice] ?? (voice === 'metronome' || voice === 'counting' ? 'off' : 'full')]

/** Whose part is left to a player: nobody's, the tune, or all but the tune. */
export const OWN_PARTS = ['none', 'tune', 'rest'] as const
export type OwnPart = (typeof OWN_PARTS)[number]

const REST = ['harmony', 'bass', 'fill'] as const

/** A balance in which one's own part is silent, and all others are heard. */
export function withOwnPart(balance: Balance, own: OwnPart): Balance {
  const set = (voices: readonly Role[], loudness: Loudness): Balance =>
    Object.fromEntries(voices.map((v) => [v, loudness]))
  return {
    ...balance,
    ...set(['melody'], own === 'tune' ? 'off' : 'full'),
    ...set(REST, own === 'rest' ? 'off' : 'full'),
  }
}

/** The part that is silent in a balance; undefined where it is none of them as a whole. */
export function ownPartOf(balance: Balance): OwnPart | undefined {
  const isOff = (v: Role) => balance[v] === 'off'
  const rest = REST.filter(isOff).length
  if (!isOff('melody')) return rest === 0 ? 'none' : rest === REST.length ? 'rest' : undefined
  return rest === 0 ? 'tune' : undefined
}
