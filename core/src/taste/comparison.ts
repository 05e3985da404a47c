import type { Habit } from '../document/habit.ts'
import type { Id } from '../document/ids.ts'
import type { TastePrices, TasteShape } from '../document/taste.ts'
import { priceOfCounts, type TasteCounts } from './momentCounts.ts'

/** Where somebody chose. */
export interface Case {
  readonly tune: Id
  readonly title: string
  /** As it is printed. */
  readonly measure: number
  /** Day, as `2026-05-01`. */
  readonly day: string
}

/** One way to play some notes, as it was offered. */
export interface OfferedWay {
  /** What it costs more than what stood there, at the house's own prices. */
  readonly price: number
  readonly counts: TasteCounts
}

/** Ways to play the same notes, and which was taken. The first is the one that stood there. */
export interface WayComparison {
  readonly kind: 'way'
  readonly at: Case
  readonly ways: readonly OfferedWay[]
  readonly taken: number
}

/** A shape that was taken for a chord. */
export interface ShapeComparison {
  readonly kind: 'shape'
  readonly at: Case
  readonly shape: TasteShape
}

/** A fill that was taken out. */
export interface LeftOutComparison {
  readonly kind: 'leftOut'
  readonly at: Case
}

/** A setting that was chosen for a tune. */
export interface HabitComparison {
  readonly kind: 'habit'
  readonly at: Case
  readonly habit: Habit
}

/** Something that was taken over something else. */
export type Comparison = WayComparison | ShapeComparison | LeftOutComparison | HabitComparison

/** Another way, as the arranger offers it. */
interface Offered {
  /** What it costs more than what stands there, at the prices that it was arranged with. */
  readonly extra: number
  readonly counts: { readonly before: TasteCounts; readonly after: TasteCounts }
}

/**
 * The ways that were offered, at the house's own prices, what stood there first.
 * @param prices of the taste that what stood there was arranged with
 */
export function offeredWays(others: readonly Offered[], prices: TastePrices): OfferedWay[] {
  const [first] = others
  if (!first) return []
  const stood = priceOfCounts(first.counts.before, prices)
  return [
    { price: 0, counts: first.counts.before },
    ...others.map(({ extra, counts }) => ({
      price: extra - (priceOfCounts(counts.after, prices) - stood),
      counts: counts.after,
    })),
  ]
}
