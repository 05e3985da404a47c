import type { Measure } from '../../document/tune.ts'
import { countAt, countedBeat } from '../../music/time/count.ts'
import { commonDivisor } from '../../music/time/commonDivisor.ts'
import { inFullMeasure } from '../../music/time/metre.ts'
import type { Ticks } from '../../music/time/ticks.ts'

/** Where in a measure something is: the beat by its number, and the syllable or the share of the beat after it. */
export interface Count {
  readonly beat: number
  readonly syllable?: string
  /** Numerator and denominator of the share of the beat, between the syllables. */
  readonly share?: readonly [number, number]
}

/** How a moment of a measure is counted; a short measure counts from where it begins in a whole one. */
export function beatCount(measure: Measure, tick: Ticks): Count {
  const at = inFullMeasure(measure, tick)
  const length = countedBeat(measure.metre)
  const beat = Math.floor(at / length) + 1
  const within = at - (beat - 1) * length
  if (within === 0) return { beat }
  const syllable = countAt(measure.metre, at)
  if (syllable !== undefined) return { beat, syllable }
  const common = commonDivisor(within, length)
  return { beat, share: [within / common, length / common] }
}
