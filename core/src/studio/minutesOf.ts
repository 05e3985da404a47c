import { unfold } from '../document/form/unfold.ts'
import type { TuneDoc } from '../document/tune.ts'
import { USUAL_TEMPO } from '../music/time/tempo.ts'
import { secondsOf } from '../music/time/ticks.ts'

/** Minutes that a tune takes once with all its repeats, at its own tempo, in halves. */
export const minutesOf = (tune: Pick<TuneDoc, 'measures' | 'tempos'>): number =>
  Math.max(
    0.5,
    Math.round(secondsOf(unfold(tune.measures).length, tune.tempos[0]?.bpm ?? USUAL_TEMPO) / 30) / 2,
  )
