import type { Pos } from '../tune.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import { ticksAt, type Timeline } from './timeline.ts'

interface Placed {
  readonly pos: Pos
}

/** The items of a list by their written time. */
interface InOrder {
  readonly timeline: Timeline
  /** Where each stands in the list. */
  readonly index: readonly number[]
  /** The time of each, ascending. */
  readonly at: readonly Ticks[]
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
  const order = inOrder(items, timeline)
  return order.index.slice(firstFrom(order.at, from), firstFrom(order.at, to)).map((i) => items[i]!)
}

function inOrder(items: readonly Placed[], timeline: Timeline): InOrder {
  const before = known.get(items)
  if (before?.timeline === timeline) return before
  const timed = items
    .map((item, index) => ({ index, at: ticksAt(timeline, item.pos) }))
    .sort((a, b) => a.at - b.at)
  const order = { timeline, index: timed.map((t) => t.index), at: timed.map((t) => t.at) }
  known.set(items, order)
  return order
}

/** Index of the first that is not less than a value, in an ascending list. */
function firstFrom(ascending: readonly Ticks[], value: Ticks): number {
  let low = 0
  let high = ascending.length
  while (low < high) {
    const mid = (low + high) >> 1
    if (ascending[mid]! < value) low = mid + 1
    else high = mid
  }
  return low
}
