import { ticksAt, type Timeline } from '../../document/form/timeline.ts'
import type { Grip } from '../../document/tab.ts'
import type { Pos } from '../../document/tune.ts'

/** What stands on the page in order of time; the list itself where it is in order already. */
export function inTime<T extends { readonly pos: Pos }>(
  list: readonly T[],
  timeline: Timeline,
): readonly T[] {
  if (list.every((x, i) => i === 0 || !isBefore(x.pos, list[i - 1]!.pos, timeline))) return list
  const at = list.map((x) => ticksAt(timeline, x.pos))
  return [...list.keys()].sort((a, b) => at[a]! - at[b]! || a - b).map((i) => list[i]!)
}

/** True where a position comes before another one. Within a measure nothing is looked up: long lists are gone through often. */
const isBefore = (a: Pos, b: Pos, timeline: Timeline): boolean =>
  a.measure === b.measure ? a.tick < b.tick : ticksAt(timeline, a) < ticksAt(timeline, b)

/** Grips each of which lasts until the next. */
export function reaching(grips: readonly Grip[], timeline: Timeline, end: Pos): Grip[] {
  const sorted = inTime(grips, timeline)
  return sorted.map((g, i) => {
    const until = sorted[i + 1]?.pos ?? end
    return g.until.measure === until.measure && g.until.tick === until.tick ? g : { ...g, until }
  })
}
