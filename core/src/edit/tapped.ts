import { QUARTER, type Ticks } from '../music/time/ticks.ts'

/** Taps as lengths of notes. */
export interface Tapped {
  /** From tap to tap; one less than there are taps. */
  readonly lengths: readonly Ticks[]
  /** Seconds by which each tap came late (early: negative) against the grid that it was set on. */
  readonly offBy: readonly number[]
}

/** On what taps are set. */
export interface TapGrid {
  /** The shortest length. */
  readonly grid: Ticks
  /** True where a beat of a quarter may be parted in three: the division that its taps agree with is taken. */
  readonly thirds?: boolean
  /** Where in its beat the first note stands. */
  readonly from?: Ticks
}

const THIRD = QUARTER / 3

/** Share of a beat by which thirds must fit better than the grid: most beats are not parted in three. No source. */
const RATHER_GRID = 0.02

/**
 * Sets taps on a grid. Each is measured from the first one, so that small errors do not add up; two never fall on one
 * place.
 * @param taps seconds, rising
 * @param bpm quarter notes a minute
 * @example quantised([0, 0.52, 0.74, 1.01], 120, { grid: QUARTER / 2 }).lengths // a quarter and two eighths
 */
export function quantised(taps: readonly number[], bpm: number, on: TapGrid): Tapped {
  const first = taps[0] ?? 0
  const ticksASecond = (bpm / 60) * QUARTER
  const heard = taps.map((tap) => (tap - first) * ticksASecond)
  const inThirds = on.thirds ? beatsInThirds(heard, on) : undefined
  const places: Ticks[] = []
  for (const at of heard) {
    const third = inThirds?.has(beatOf(at, on.from))
    const [step, from] = third ? [THIRD, on.from ?? 0] : [on.grid, 0]
    const before = places.at(-1)
    const after = before === undefined ? 0 : Math.floor((before + from) / step + 1) * step - from
    places.push(before === undefined ? 0 : Math.max(onStep(at, step, from), after))
  }
  return {
    lengths: places.slice(1).map((p, i) => p - places[i]!),
    offBy: taps.map((tap, i) => tap - first - places[i]! / ticksASecond),
  }
}

/** A moment on the nearest step, counted from the beat in which the first note stands so far in. */
const onStep = (at: number, step: Ticks, from: Ticks): Ticks => Math.round((at + from) / step) * step - from

/** The beat that a tap belongs to: one that comes a little early belongs to the next. */
const beatOf = (at: number, from: Ticks = 0): number => Math.floor((at + from + THIRD / 3) / QUARTER)

/** The beats whose taps lie nearer to thirds than to the grid. */
function beatsInThirds(heard: readonly number[], { grid, from = 0 }: TapGrid): Set<number> {
  const beats = new Map<number, { thirds: number; grid: number }>()
  const off = (at: number, step: Ticks) => Math.abs(at + from - Math.round((at + from) / step) * step)
  for (const at of heard) {
    const sum = beats.get(beatOf(at, from)) ?? { thirds: 0, grid: 0 }
    beats.set(beatOf(at, from), { thirds: sum.thirds + off(at, THIRD), grid: sum.grid + off(at, grid) })
  }
  // The first note stands where it stands.
  if (from % THIRD !== 0) beats.delete(0)
  return new Set([...beats].flatMap(([beat, o]) => (o.thirds + RATHER_GRID * QUARTER < o.grid ? [beat] : [])))
}
