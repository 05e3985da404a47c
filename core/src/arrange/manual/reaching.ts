import { ticksAt, type Timeline } from '../../document/form/timeline.ts'
import type { Grip } from '../../document/tab.ts'
import type { Pos } from '../../document/tune.ts'

/** What stands on the page in order of time; the list itself where it is in order already. */
export function inTime<T extends { readonly pos: Pos }>(
  list: readonly T[],
  timeline: Timeline,
): readonly T[] {
  const at = list.map((x) => ticksAt(timeline, x.pos))
  if (at.every((t, i) => i === 0 || at[i - 1]! <= t)) return list
  return [...list.keys()].sort((a, b) => at[a]! - at[b]! || a - b).map((i) => list[i]!)
}

/** Grips each of which lasts until the next. */
export function reaching(grips: readonly Grip[], timeline: Timeline, end: Pos): Grip[] {
  const sorted = inTime(grips, timeline)
  return sorted.map((g, i) => {
    const until = sorted[i + 1]?.pos ?? end
    return g.until.measure === until.measure && g.until.tick === until.tick ? g : { ...g, until }
  })
}
