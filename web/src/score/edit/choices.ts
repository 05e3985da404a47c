import type { TFunction } from 'i18next'
import type { Role } from '@velvet-porch/core/document'
import type { Choosing } from '@velvet-porch/core/edit'

const VOICES: Readonly<Record<Role, string>> = {
  melody: 'Alt+M',
  harmony: 'Alt+H',
  bass: 'Alt+B',
  fill: 'Alt+L',
}

/** What the note tools can change, each with its key and a short name of its own. */
export interface Choice {
  readonly value: string
  /** Undefined: the note under the cursor. */
  readonly choosing: Choosing | undefined
  readonly keys: string
}

/** The choices for an instrument: one note, all, a voice, a string. */
export const choicesOf = (strings: number): Choice[] => [
  { value: 'one', choosing: undefined, keys: 'Alt+0' },
  { value: 'all', choosing: { by: 'all' }, keys: 'Mod+A' },
  ...(Object.keys(VOICES) as Role[]).map((role) => ({
    value: role,
    choosing: { by: 'voice', role } as const,
    keys: VOICES[role],
  })),
  ...Array.from({ length: strings }, (_, i) => ({
    value: String(i + 1),
    choosing: { by: 'string', string: i + 1 } as const,
    keys: `Alt+${i + 1}`,
  })),
]

export function choiceWords(t: TFunction, choosing: Choosing | undefined): string {
  if (!choosing) return t('write.choose.one')
  if (choosing.by === 'all') return t('write.choose.all')
  return choosing.by === 'voice'
    ? t(`write.choose.${choosing.role}`)
    : t('write.choose.string', { string: choosing.string })
}
