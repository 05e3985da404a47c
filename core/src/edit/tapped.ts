import { QUARTER, type Ticks } from '../time/ticks.ts'

/** Taps as lengths of notes. */
export interface Tapped {
  /** From tap to tap; one less than there are taps. */
  readonly lengths: readonly Ticks[]
  /** Seconds by which each tap came late (early: negative) against the grid that it was set on. */
  readonly offBy: readonly number[]
}

/**
 * Sets taps on a grid. Each is measured from the first one, so that small errors do not add up; two never fall on one
 * place.
 * @param taps seconds, rising
 * @param bpm quarter notes a minute
 * @param grid the shortest length
 * @example quantised([0, 0.52, 0.74, 1.01], 120, QUARTER / 2).lengths // a quarter and two eighths
 */
export function quantised(taps: readonly number[], bpm: number, grid: Ticks): Tapped {
  const first = taps[0] ?? 0
  const ticksASecond = (bpm / 60) * QUARTER
  const places: Ticks[] = []
  for (const tap of taps) {
    const wanted = Math.round(((tap - first) * ticksASecond) / grid) * grid
    const before = places.at(-1)
    places.push(before === undefined ? 0 : Math.max(wanted, before + grid))
  }
  return {
    lengths: places.slice(1).map((p, i) => p - places[i]!),
    offBy: taps.map((tap, i) => tap - first - places[i]! / ticksASecond),
  }
}
