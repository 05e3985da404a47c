import { withShift, type Setup } from '@velvet-porch/core'
import { playerFrom } from './playerFrom.ts'
import { SETUP_OPTIONS, setupFrom } from './setupFrom.ts'
import { semitones, wholeNumber } from './usage.ts'

/** Options of every command that arranges: which tune, on what, for which hand, in which style and school. */
export const ARRANGE_OPTIONS = {
  tune: { type: 'string', default: '1' },
  ...SETUP_OPTIONS,
  style: { type: 'string', default: 'melody-bass' },
  player: { type: 'string' },
  shift: { type: 'string', default: '0' },
  octave: { type: 'string' },
  school: { type: 'string', multiple: true, default: [] as string[] },
} as const

/** The setup that the options ask for, with the hand of the player's file where one is named. */
export function playedSetupFrom(
  values: Parameters<typeof setupFrom>[0] & {
    readonly player?: string | undefined
    readonly shift: string
    readonly octave?: string | undefined
  },
): Setup {
  const octave = values.octave === undefined ? undefined : wholeNumber(values.octave, -2, 2, 'octave')
  const setup = withShift(setupFrom(values), semitones(values.shift, 'shift'), octave)
  return values.player ? { ...setup, player: playerFrom(values.player) } : setup
}
