import { bpmAt, tempoMap } from '../../document/form/tempoMap.ts'
import type { Timeline } from '../../document/form/timeline.ts'
import type { Layer } from '../../document/arrangement.ts'
import type { Span, TabNote } from '../../document/tab.ts'
import type { TuneDoc } from '../../document/tune.ts'
import { QUARTER, secondsOf, type Ticks } from '../../music/time/ticks.ts'
import type { Turns } from '../../turns.ts'
import { findingSoundings, soundingInTime, type SoundingNote } from './sounding.ts'

/** A moment at which something is struck, and all that sounds there. */
export interface Moment {
  readonly at: Ticks
  /** Index of the measure. */
  readonly measure: number
  /** All that sounds, a note a string: what is struck here and what sounds on. */
  readonly sounding: readonly SoundingNote[]
  /** Seconds since the moment before; 1 for the first. */
  readonly seconds: number
  /** True where open strings are struck nearby: the hand is in the open position. */
  readonly open: boolean
  /** True where the lengths of the measure's notes were guessed. */
  readonly guessed: boolean
  /** Beats until the next moment. */
  readonly beats: number
}

export const isStruckAt = ({ at }: Moment, note: SoundingNote): boolean => note.start === at

/** The moments of a stretch of written time. */
export function* findingMoments(
  layer: Pick<Layer, 'notes' | 'spans'>,
  tune: TuneDoc,
  timeline: Timeline,
  stretch: { readonly from: Ticks; readonly to: Ticks },
): Turns<Moment[]> {
  const all = yield* findingSoundings(layer, timeline, stretch)
  const times = [
    ...new Set(all.filter((s) => s.start >= stretch.from && s.start < stretch.to).map((s) => s.start)),
  ]
  const soundsAt = soundingInTime(all)
  const tempos = tempoMap(tune, timeline)
  const moments: Moment[] = []
  const near = openNearby(all)
  let measure = 0
  for (const [i, at] of times.entries()) {
    if (i % 64 === 63) yield
    while (measure + 1 < timeline.starts.length && timeline.starts[measure + 1]! <= at) measure++
    const before = times[i - 1]
    moments.push({
      at,
      measure,
      sounding: soundsAt(at),
      seconds: before === undefined ? 1 : secondsOf(at - before, bpmAt(tempos, at)),
      open: near(at),
      guessed: tune.measures[measure]!.provenance === 'guessed',
      beats: ((times[i + 1] ?? stretch.to) - at) / QUARTER,
    })
  }
  return moments
}

/** How far around a moment open strings count. */
const NEARBY = 4 * QUARTER

/** Whether an open string is struck within a few beats of a time; asked in order of time. */
function openNearby(all: readonly SoundingNote[]): (at: Ticks) => boolean {
  const open = all.filter((s) => s.note.place.fret === 0 && !s.note.place.harmonic).map((s) => s.start)
  let first = 0
  return (at) => {
    while (first < open.length && open[first]! < at - NEARBY) first++
    return (open[first] ?? Infinity) <= at + NEARBY
  }
}

/** From which note each is reached by the fretting hand. */
export const joinedFrom = (spans: readonly Span[], notes: readonly TabNote[]): Map<string, TabNote> => {
  const byId = new Map(notes.map((n) => [n.id, n]))
  return new Map(
    spans.flatMap(({ from, to }) => {
      const note = byId.get(from)
      return note ? [[to, note] as const] : []
    }),
  )
}
