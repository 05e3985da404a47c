import { groupBy } from 'es-toolkit'
import { melodyOf, timelineOf } from '../../document/form/timeline.ts'
import type { ArrangementDoc } from '../../document/arrangement.ts'
import type { TabNote } from '../../document/tab.ts'
import type { Measure, TuneDoc } from '../../document/tune.ts'
import { beatLength } from '../../music/time/metre.ts'
import { partStarts } from './partStarts.ts'
import type { Piece, Unit } from './piece.ts'
import { smallPieces } from './smallPieces.ts'

/** Measures of a piece: longer ones are parted where the melody breathes. Common practice, no source. */
const MOST = 4
const LEAST = 2

/**
 * The tune in pieces: parts (sections, repeats, endings), and within them phrases that end where the melody rests or
 * holds. A pickup goes with what follows it. What comes again, whole or nearly, says so. Smaller units may begin in
 * the middle of a measure.
 */
export function piecesOf(
  tune: TuneDoc,
  { base }: Pick<ArrangementDoc, 'base'>,
  unit: Unit = 'phrase',
): Piece[] {
  if (unit === 'beat' || unit === 'shape' || unit === 'lick') return smallPieces(tune, base, unit)
  const breathes = breathing(tune)
  const starts = partStarts(tune)
  const pieces: { from: number; to: number }[] = []
  starts.forEach((start, i) => {
    const end = (starts[i + 1] ?? tune.measures.length) - 1
    for (let from = start; from <= end;) {
      const to =
        unit === 'part'
          ? end
          : unit === 'measure'
            ? measureEnd(tune, from, end)
            : pieceEnd(tune.measures, breathes, from, end)
      pieces.push({ from, to })
      from = to + 1
    }
  })
  const notes = groupBy(base.notes, (n) => n.pos.measure)
  const played = tune.measures.map((m) => contentOf(m, notes[m.id] ?? []))
  return pieces.map((p, i): Piece => {
    const like = likeness(pieces.slice(0, i), p, played)
    return { number: i + 1, ...p, ...(like ? { like } : {}) }
  })
}

/** A pickup goes with what follows it. */
const measureEnd = ({ measures }: TuneDoc, from: number, end: number): number =>
  from === 0 && measures[0]!.length < measures[0]!.nominal ? Math.min(end, 1) : from

/** For each measure whether the melody rests at its end or holds its last note for two beats or more. */
function breathing(tune: TuneDoc): boolean[] {
  const timeline = timelineOf(tune.measures)
  const melody = melodyOf(tune, timeline)
  let next = 0
  return tune.measures.map((m, i) => {
    const start = timeline.starts[i]!
    const end = start + m.length
    while (next < melody.length && melody[next]!.start < end) next++
    const last = melody[next - 1]
    if (!last) return true
    const rests = last.start + last.duration < end
    return rests || (last.start >= start && last.duration >= 2 * beatLength(m.metre))
  })
}

function pieceEnd(
  measures: readonly Measure[],
  breathes: readonly boolean[],
  from: number,
  end: number,
): number {
  // A pickup does not count.
  const short = measures[from]!.length < measures[from]!.nominal && from < end ? 1 : 0
  const first = from + short
  if (end - first + 1 <= MOST) return end
  for (let to = first + MOST - 1; to >= first + LEAST - 1; to--)
    // Nothing shorter than a piece is left over.
    if (breathes[to] && end - to >= LEAST) return to
  return end - first + 1 === MOST + 1 ? first + 2 : first + MOST - 1
}

/** What is played in a measure, in a few characters. */
function contentOf({ length }: Measure, notes: readonly TabNote[]): string {
  const own = notes.map((n) =>
    [n.pos.tick, n.dur.ticks, n.place.string, n.place.fret, n.left, n.right, n.attack].join(),
  )
  return `${length} ${own.sort().join(' ')}`
}

/** The earlier piece that a piece differs from least, if in fewer than half of its measures. */
function likeness(
  earlier: readonly { from: number; to: number }[],
  { from, to }: { from: number; to: number },
  played: readonly string[],
): Piece['like'] {
  let best: Piece['like']
  earlier.forEach((e, i) => {
    if (e.to - e.from !== to - from) return
    const differs: number[] = []
    for (let m = from; m <= to; m++) if (played[m] !== played[e.from + m - from]) differs.push(m)
    if (differs.length * 2 >= to - from + 1) return
    if (!best || differs.length < best.differs.length) best = { piece: i + 1, differs }
  })
  return best
}
