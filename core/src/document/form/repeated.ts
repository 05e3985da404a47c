import type { Turns } from '../../turns.ts'

/** What stands in one measure: some items of a list, from `from` up to but without `to`, and what they play. */
export interface MeasureContent {
  readonly from: number
  readonly to: number
  /** Equal for measures that play the same. */
  readonly content: string
}

/**
 * Items of measures that play what an earlier measure plays, each with the item that it repeats.
 * @param measures in their order
 */
export function* repeatedItems(measures: Iterable<MeasureContent>): Turns<Map<number, number>> {
  const firstOf = new Map<string, number>()
  const repeated = new Map<number, number>()
  let seen = 0
  for (const { from, to, content } of measures) {
    if (++seen % 32 === 0) yield
    const first = firstOf.get(content)
    if (first === undefined) firstOf.set(content, from)
    else for (let i = from; i < to; i++) repeated.set(i, first + i - from)
  }
  return repeated
}
