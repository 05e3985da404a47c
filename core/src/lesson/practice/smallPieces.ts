import { between } from '../../document/form/between.ts'
import { measureAt, melodyOf, ticksAt, timelineOf, type Timeline } from '../../document/form/timeline.ts'
import type { Layer } from '../../document/arrangement.ts'
import type { TuneDoc } from '../../document/tune.ts'
import { countedBeat } from '../../music/time/count.ts'
import { beatLength, missingHead } from '../../music/time/metre.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import { partStarts } from './partStarts.ts'
import type { Piece, Unit } from './piece.ts'

/** Pieces that may begin in the middle of a measure. One that is played just as an earlier one says so. */
export function smallPieces(
  tune: TuneDoc,
  base: Layer,
  unit: Extract<Unit, 'beat' | 'shape' | 'lick'>,
): Piece[] {
  const timeline = timelineOf(tune.measures)
  const starts = { beat: beats, shape: changes, lick: licks }[unit](tune, timeline)
  const parts = partStarts(tune).map((m) => timeline.starts[m]!)
  const all = [...new Set([0, ...starts, ...parts])].sort((a, b) => a - b)
  const ranges = all
    .map((from, i) => ({ from, to: all[i + 1] ?? timeline.length }))
    .filter(({ from, to }) => between(base.notes, timeline, from, to).length > 0)
  const contents = ranges.map((r) => contentOf(r, base, timeline))
  return ranges.map(({ from, to }, i): Piece => {
    const first = measureAt(timeline, from)
    const last = measureAt(timeline, to - 1)
    const tick = from - timeline.starts[first]!
    const until = to - timeline.starts[last]!
    const earlier = contents.indexOf(contents[i]!)
    return {
      number: i + 1,
      from: first,
      to: last,
      ...(tick > 0 ? { tick } : {}),
      ...(until < tune.measures[last]!.length ? { until } : {}),
      ...(earlier < i ? { like: { piece: earlier + 1, differs: [] } } : {}),
    }
  })
}

function beats(tune: TuneDoc, timeline: Timeline): Ticks[] {
  return tune.measures.flatMap((m, i) => {
    const beat = countedBeat(m.metre)
    const head = missingHead(m)
    const own: Ticks[] = []
    for (let at = Math.ceil(head / beat) * beat - head; at < m.length; at += beat)
      own.push(timeline.starts[i]! + at)
    return [timeline.starts[i]!, ...own]
  })
}

const changes = (tune: TuneDoc, timeline: Timeline): Ticks[] =>
  tune.chords.map((c) => ticksAt(timeline, c.pos))

/** A lick ends where the melody holds for two beats or rests for one, and goes on for two measures at most. */
function licks(tune: TuneDoc, timeline: Timeline): Ticks[] {
  const melody = melodyOf(tune, timeline)
  const starts: Ticks[] = []
  let begun = melody[0]?.start ?? 0
  melody.forEach((n, i) => {
    const next = melody[i + 1]
    if (!next) return
    const m = tune.measures[n.measure]!
    const beat = beatLength(m.metre)
    const breathes = n.duration >= 2 * beat || next.start - n.start - n.duration >= beat
    const long = next.start - begun >= 2 * m.nominal
    if ((breathes && next.start - begun >= m.nominal / 2) || long) {
      starts.push(next.start)
      begun = next.start
    }
  })
  return starts
}

function contentOf({ from, to }: { from: Ticks; to: Ticks }, { notes }: Layer, timeline: Timeline): string {
  return between(notes, timeline, from, to)
    .map((n) =>
      [
        ticksAt(timeline, n.pos) - from,
        n.dur.ticks,
        n.place.string,
        n.place.fret,
        n.left,
        n.right,
        n.attack,
      ].join(),
    )
    .sort()
    .join(' ')
}
