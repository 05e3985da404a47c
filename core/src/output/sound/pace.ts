import type { SwungBeat } from '../../document/swing.ts'
import { ticksAt, type Timeline } from '../../document/form/timeline.ts'
import type { TabNote } from '../../document/tab.ts'
import { QUARTER, type Ticks } from '../../music/time/ticks.ts'
import type { TempoChange } from '../../document/form/tempoMap.ts'

/** How slow a rit. has become at its end, and how long a fermata holds against its written length. No source. */
const SLOWEST = 0.65
const HELD = 2

/** Steps in which a rit. slows down. */
const STEP: Ticks = QUARTER / 2

/** A stretch of written time at a share of its tempo. */
interface Stretch {
  readonly from: Ticks
  readonly to: Ticks
  readonly share: (at: Ticks) => number
}

/**
 * The tempo of the written time line with what the tab says about it: a fermata holds its note, a rit. slows down step by
 * step until the tempo is taken up again, or to the end.
 * A beat that swings is played faster in its one half and slower in the other.
 * @param marks the tune's tempos
 */
export function paced(
  marks: readonly TempoChange[],
  notes: readonly TabNote[],
  timeline: Timeline,
  swung: readonly SwungBeat[] = [],
): readonly TempoChange[] {
  const stretches = [...slowing(notes, timeline), ...holding(notes, timeline), ...swung.flatMap(halves)]
  if (stretches.length === 0) return marks
  const turns = new Set<Ticks>([0, ...marks.map((m) => m.at)])
  for (const { from, to } of stretches) {
    for (let at = from; at < to; at += STEP) turns.add(at)
    turns.add(to)
  }
  return [...turns]
    .filter((at) => at < timeline.length)
    .sort((a, b) => a - b)
    .map((at) => {
      const own = (marks.findLast((m) => m.at <= at) ?? marks[0]!).bpm
      const shares = stretches.filter((s) => s.from <= at && s.to > at).map((s) => s.share(at))
      return { at, bpm: own * shares.reduce((a, b) => a * b, 1) }
    })
}

/** The two halves of a beat that swings. */
const halves = ({ from, half, to, share }: SwungBeat): Stretch[] => [
  { from, to: half, share: () => 0.5 / share },
  { from: half, to, share: () => 0.5 / (1 - share) },
]

function slowing(notes: readonly TabNote[], timeline: Timeline): Stretch[] {
  const said = notes
    .flatMap((n) => (n.pace ? [{ at: ticksAt(timeline, n.pos), pace: n.pace }] : []))
    .sort((a, b) => a.at - b.at)
  return said.flatMap(({ at: from, pace }, i): Stretch[] => {
    if (pace !== 'rit') return []
    const to = said[i + 1]?.at ?? timeline.length
    return [{ from, to, share: (at) => 1 - (1 - SLOWEST) * ((at - from + STEP) / Math.max(STEP, to - from)) }]
  })
}

const holding = (notes: readonly TabNote[], timeline: Timeline): Stretch[] => {
  // Notes of one moment are held together, for as long as the longest.
  const ends = new Map<Ticks, Ticks>()
  for (const n of notes) {
    if (!n.fermata) continue
    const from = ticksAt(timeline, n.pos)
    ends.set(from, Math.max(ends.get(from) ?? 0, from + n.dur.ticks))
  }
  return [...ends].map(([from, to]) => ({ from, to, share: () => 1 / HELD }))
}
