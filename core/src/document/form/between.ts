import type { Pos } from '../tune.ts'
import { firstAtOrAfter } from '../../music/time/firstAtOrAfter.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import { ticksAt, type Timeline } from './timeline.ts'

interface Placed {
  readonly pos: Pos
}

/** The items of a list by their written time. */
interface InOrder {
  readonly timeline: Timeline
  /** Where each stands in time and in the list, by time. */
  readonly placed: readonly { readonly start: Ticks; readonly index: number }[]
}

/** Many stretches of one tab are asked for; the lists of a document are never changed in place. */
const known = new WeakMap<readonly Placed[], InOrder>()

/**
 * What stands in a stretch of written time, in the order of time and else of the list.
 * @param from the first tick of the stretch
 * @param to the first tick behind it
 */
export function between<T extends Placed>(
  items: readonly T[],
  timeline: Timeline,
  from: Ticks,
  to: Ticks,
): readonly T[] {
  const { placed } = inOrder(items, timeline)
  return placed
    .slice(firstAtOrAfter(placed, from), firstAtOrAfter(placed, to))
    .map(({ index }) => items[index]!)
}

function inOrder(items: readonly Placed[], timeline: Timeline): InOrder {
  const before = known.get(items)
  if (before?.timeline === timeline) return before
  const placed = items
    .map((item, index) => ({ index, start: ticksAt(timeline, item.pos) }))
    .sort((a, b) => a.start - b.start)
  const order = { timeline, placed }
  known.set(items, order)
  return order
}
