import type { Measure, TuneDoc } from '../../document/tune.ts'
import { beatLength, missingHead } from '../../music/time/metre.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import type { Piece } from './piece.ts'

/** A moment of the page: a measure by its index, and a tick in it. */
export interface PageMoment {
  readonly measure: number
  readonly tick: Ticks
}

/** From one moment of the page up to, but without, another; the second may stand at the end of its measure. */
export interface Stretch {
  readonly from: PageMoment
  readonly to: PageMoment
}

type Measures = Pick<TuneDoc, 'measures'>

/** The beat around a moment, within its measure: a dotted quarter in 6/8. */
export function beatAt({ measures }: Measures, { measure, tick }: PageMoment): Stretch {
  const { metre, length } = measures[measure]!
  const head = missingHead(measures[measure]!)
  const beat = beatLength(metre)
  const start = Math.floor((tick + head) / beat) * beat - head
  return {
    from: { measure, tick: Math.max(0, start) },
    to: { measure, tick: Math.min(length, start + beat) },
  }
}

/** Whole measures, both ends included. */
export const measuresFrom = (tune: Measures, from: number, to: number): Stretch => ({
  from: { measure: from, tick: 0 },
  to: { measure: to, tick: lengthOf(tune.measures[to]) },
})

/** A piece of the tune, as exactly as it is cut. */
export const stretchOf = (tune: Measures, { from, to, tick = 0, until }: Piece): Stretch => ({
  from: { measure: from, tick },
  to: { measure: to, tick: until ?? lengthOf(tune.measures[to]) },
})

/**
 * From the beat of one moment to the end of another's beat, whichever comes first.
 * @example a lesson from measure 3, beat 2 to measure 5, beat 1
 */
export function betweenBeats(tune: Measures, a: PageMoment, b: PageMoment): Stretch {
  const [first, last] = isBefore(b, a) ? [b, a] : [a, b]
  return { from: beatAt(tune, first).from, to: beatAt(tune, last).to }
}

/** True for a moment inside a stretch. */
export const isWithin = ({ from, to }: Stretch, at: PageMoment): boolean =>
  !isBefore(at, from) && isBefore(at, to)

const isBefore = (a: PageMoment, b: PageMoment): boolean =>
  a.measure < b.measure || (a.measure === b.measure && a.tick < b.tick)

const lengthOf = (measure: Measure | undefined): Ticks => measure?.length ?? 0
