/** Exact musical time: whole ticks, 10,080 to a quarter note, so that 3-, 5-, 7- and 9-tuplets and 128ths are whole. */
export type Ticks = number

/** Ticks in a quarter note. */
export const QUARTER: Ticks = 10_080

/** Ticks in a whole note. */
export const WHOLE: Ticks = 4 * QUARTER

/**
 * Seconds that a span of ticks lasts at a tempo.
 * @param bpm quarter notes a minute
 * @example secondsOf(QUARTER, 60) // 1
 */
export function secondsOf(ticks: Ticks, bpm: number): number {
  return (ticks / QUARTER) * (60 / bpm)
}
