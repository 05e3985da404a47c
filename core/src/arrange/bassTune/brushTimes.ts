import type { MelodyNote } from '../../document/form/timeline.ts'
import type { Measure } from '../../document/tune.ts'
import type { Stroke } from '../../instrument/hand.ts'
import { firstAtOrAfter } from '../../music/time/firstAtOrAfter.ts'
import { beatLength, beatStarts, isCompound, missingHead, strongBeats } from '../../music/time/metre.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import type { BassTuneRules } from './levels.ts'

/** Strokes of the arm nearer to one another than this (seconds) are no brushes. Common practice, no source. */
const LEAST_S = 0.17

/** A note as long as this, in beats, has a bass beneath it. */
const LONG = 3

/** A brush, or the bass of the chord in its place. */
export interface BrushTime {
  readonly at: Ticks
  readonly until: Ticks
  readonly stroke: Stroke
  readonly bass: boolean
}

/**
 * When the hand brushes in a measure: on the beats that the tune leaves, and on its way back up after them.
 * @param from the start of the measure
 * @param end the end of the tune
 */
export function brushTimes(
  measure: Measure,
  from: Ticks,
  melody: readonly Pick<MelodyNote, 'start'>[],
  { gap, up, full }: BassTuneRules,
  end: Ticks,
  secondsBetween: (from: Ticks, to: Ticks) => number,
): BrushTime[] {
  const beat = beatLength(measure.metre)
  const offset = missingHead(measure)
  const back = isCompound(measure.metre) ? (beat / 3) * 2 : beat / 2
  const to = from + measure.length
  const strong = new Set(strongBeats(measure.metre))
  const result: BrushTime[] = []
  const around = (at: Ticks) => {
    const next = firstAtOrAfter(melody, at)
    const here = melody[next]?.start === at
    return { here, before: melody[next - 1]?.start, after: melody[here ? next + 1 : next]?.start ?? end }
  }
  for (const inFull of beatStarts(measure.metre)) {
    const at = from + inFull - offset
    if (at < from || at >= to) continue
    const { here, before, after } = around(at)
    const since = here ? at : before
    if (since === undefined) continue
    const isBrushed = !here && after - since >= gap * beat && secondsBetween(since, at) >= LEAST_S
    const bass = full && strong.has(inFull) && after - since >= LONG * beat
    const until = Math.min(at + beat, after, to)
    if (isBrushed && secondsBetween(at, after) >= LEAST_S) result.push({ at, until, stroke: 'down', bass })
    const upAt = at + back
    const follows = here ? up !== 'never' : isBrushed && up === 'always'
    const free = upAt < to && upAt < after
    if (follows && free && secondsBetween(at, upAt) >= LEAST_S && secondsBetween(upAt, after) >= LEAST_S)
      result.push({ at: upAt, until, stroke: here || bass ? 'down' : 'up', bass: false })
  }
  return result
}
