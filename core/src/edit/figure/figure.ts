import { findingHands } from '../../arrange/manual/findHands.ts'
import { joinedUp } from '../../arrange/manual/placed.ts'
import { harmonyLine, segmentAt, type HarmonySegment } from '../../arrange/plan/harmonyLine.ts'
import type { ArrangementDoc, Layer } from '../../document/arrangement.ts'
import { ticksAt, timelineOf, type Timeline } from '../../document/form/timeline.ts'
import type { Id } from '../../document/ids.ts'
import { lockId, lockOf, type Lock } from '../../document/locks.ts'
import { regionAt } from '../../document/regions.ts'
import type { Score } from '../../document/score.ts'
import type { TabNote } from '../../document/tab.ts'
import type { ChordMark, Measure, TuneDoc } from '../../document/tune.ts'
import { pitchAt } from '../../instrument/setup.ts'
import { present } from '../../invariant.ts'
import { chordText, transposeChord, type ChordReading } from '../../music/harmony/chordSymbol.ts'
import { spellInKey } from '../../music/pitch/key.ts'
import { WHOLE, type Ticks } from '../../music/time/ticks.ts'
import { finish } from '../../turns.ts'
import { clipOf, unmarked, withFreshIds, type Clip } from '../clip.ts'
import { done, refused, type Edited, type MeasureEdit } from '../edited.ts'
import { freshIds } from '../freshIds.ts'
import { spliced } from '../measures.ts'
import { onShapes, type FigureNote } from './onShape.ts'
import { readFigureChords } from './figureChords.ts'
import { shapeNear, shapeUnderNotes, type ShapeUnder } from './shapeUnder.ts'

type Arranged = Score & { readonly arrangement: ArrangementDoc }

/**
 * The same figure on other chords: copies of some measures behind them, one for each measure that is named, every note on the string and
 * fret that the new chord has for it. Rhythm, picking and signs stay; both hands are found for the new places.
 */
export function writeFigure(score: Score, edit: Extract<MeasureEdit, { do: 'figure' }>): Edited {
  const { from, to, chords: text } = edit
  const { tune, arrangement } = score
  if (!arrangement) return refused('noTab')
  if (!tune.measures[from] || !tune.measures[to] || to < from) return refused('noSuchMeasure')
  const read = readFigureChords(text)
  if (!read.ok) return refused('notChord', { word: read.word })
  if (read.measures.length === 0) return refused('noChords')
  const inside = new Set(tune.measures.slice(from, to + 1).map((m) => m.id))
  if (!arrangement.base.notes.some((n) => inside.has(n.pos.measure))) return refused('nothingThere')
  const arranged: Arranged = { tune, arrangement }
  const source = writtenHarmony(arranged)
  const { starts, length } = source.timeline
  const isInside = (h: HarmonySegment) => h.start < (starts[to + 1] ?? length) && h.end > starts[from]!
  if (!source.harmony.some((h) => h.shape && isInside(h))) return refused('noChordName')
  let now: Arranged = arranged
  read.measures.forEach((chords, i) => {
    const k = from + (i % (to - from + 1))
    now = withCopy(now, k, to + 1 + i, chords, source)
  })
  const copies = now.tune.measures.slice(to + 1, to + 1 + read.measures.length).map((m) => m.id)
  const whole = withChordAfter(now, tune, source, to + 1, read.measures.length)
  return done(withFoundHands(whole, new Set(copies)))
}

/** The harmony of a score on its written time line. */
interface WrittenHarmony {
  readonly timeline: Timeline
  readonly harmony: readonly HarmonySegment[]
}

function writtenHarmony({ tune, arrangement: { setup, transposed } }: Arranged): WrittenHarmony {
  const timeline = timelineOf(tune.measures)
  return { timeline, harmony: harmonyLine(tune, timeline, setup.capo[0]!, transposed) }
}

/** What stands behind the copies goes on under the chord that it had. */
function withChordAfter(
  now: Arranged,
  tune: TuneDoc,
  { timeline, harmony }: WrittenHarmony,
  next: number,
  added: number,
): Arranged {
  const measure = tune.measures[next]
  if (!measure || tune.chords.some((c) => c.pos.measure === measure.id && c.pos.tick === 0)) return now
  const held = harmony[segmentAt(harmony, timeline.starts[next]!)]
  const mark = held && tune.chords.find((c) => ticksAt(timeline, c.pos) === held.start)
  if (!mark) return now
  const own = { ...mark, id: freshIds(now.tune).chord(), pos: { measure: measure.id, tick: 0 } }
  const before = now.tune.measures.slice(0, next + added).map((m) => m.id)
  const at = now.tune.chords.filter((c) => before.includes(c.pos.measure)).length
  return { ...now, tune: { ...now.tune, chords: now.tune.chords.toSpliced(at, 0, own) } }
}

/** A score with one measure played again on other chords, before another measure. */
function withCopy(
  score: Arranged,
  index: number,
  before: number,
  shapes: readonly ChordReading[],
  source: WrittenHarmony,
): Arranged {
  const { tune, arrangement } = score
  const { setup, transposed } = arrangement
  // A figure is played again; what is sung is not.
  const { lines: _, ...clip } = clipOf(score, index, index)
  const copy = unmarked(withFreshIds(clip, tune))
  const layer = present(copy.layer)
  const measure = copy.measures[0]!
  const starts = changesIn(measure, shapes.length)
  const targetAt = (tick: Ticks): ChordReading => shapes[starts.findLastIndex((s) => s <= tick)]!
  const sourceAt = (tick: Ticks) => shapeAt(source, source.timeline.starts[index]! + tick)
  const pins = tune.pins ?? []
  const under = new Map<string, ShapeUnder>()
  const underSource = (shape: ChordReading) => {
    const key = chordText(shape)
    const known = under.get(key)
    if (known) return known
    const own = layer.notes.filter((n) => chordText(sourceAt(n.pos.tick) ?? shape) === key)
    const found = shapeUnderNotes(own, shape, setup, pins)
    under.set(key, found)
    return found
  }
  const figure = layer.notes.flatMap((note): FigureNote[] => {
    const [source, target] = [sourceAt(note.pos.tick), targetAt(note.pos.tick)]
    if (!source) return []
    const from = underSource(source)
    // On its own chord a figure is what it was.
    const same = chordText(source) === chordText(target)
    const to = same ? from : (shapeNear(from, target, setup, pins) ?? from)
    return [{ note, at: note.pos.tick, from, to }]
  })
  const notes = onShapes(figure, setup)
  const moved: Clip = {
    ...copy,
    events: eventsFor(copy, notes, score),
    chords: chordsFor(measure.id, shapes, starts, setup.capo[0]! - transposed, tune),
    layer: { notes, grips: [], spans: [], locks: locksFor(layer, notes) },
  }
  return spliced(score, before, moved) as Arranged
}

/** Where so many chords of a measure begin: on its beats, as evenly as they fall. */
function changesIn({ length, metre }: Measure, count: number): Ticks[] {
  const beat = WHOLE / metre.den
  const beats = Math.max(count, Math.floor(length / beat))
  const step = Math.min(beat, length / count)
  return Array.from({ length: count }, (_, i) => Math.round((i * beats) / count) * step)
}

/** The chord at a time, as the hand calls it: the one that holds, else the first that comes, else the last that was. */
function shapeAt({ harmony }: WrittenHarmony, at: Ticks): ChordReading | undefined {
  const here = harmony[segmentAt(harmony, at)]?.shape
  return here ?? (harmony.find((h) => h.start >= at && h.shape) ?? harmony.findLast((h) => h.shape))?.shape
}

/** The tune of the copy: its melody sounds what its notes do now. What lost its note is a rest. */
function eventsFor(copy: Clip, notes: readonly TabNote[], { arrangement }: Arranged): Clip['events'] {
  const { setup, transposed } = arrangement
  const key = copy.measures[0]!.key
  const melody = new Map(notes.flatMap((n) => (n.sourceId === undefined ? [] : [[n.sourceId, n] as const])))
  const played = new Set(present(copy.layer).notes.flatMap((n) => n.sourceId ?? []))
  let tied: TabNote | undefined
  return copy.events.map((event) => {
    const own = melody.get(event.id) ?? (played.has(event.id) ? undefined : tied)
    tied = event.tieTo === undefined ? undefined : own
    if (!event.pitch) return event
    if (own)
      return { ...event, chordTones: [], pitch: spellInKey(pitchAt(setup, own.place) - transposed, key) }
    const { pitch: _, tieTo: __, ...rest } = event
    return played.has(event.id) ? { ...rest, chordTones: [] } : event
  })
}

function chordsFor(
  measure: Id,
  shapes: readonly ChordReading[],
  starts: readonly Ticks[],
  up: number,
  tune: TuneDoc,
): ChordMark[] {
  const ids = freshIds(tune)
  const flats = tune.measures[0]!.key.fifths < 0
  return shapes.map((shape, i) => {
    const parsed = up === 0 ? shape : transposeChord(shape, up, flats)
    return {
      id: ids.chord(),
      pos: { measure, tick: starts[i]! },
      symbol: chordText(parsed),
      origin: 'given',
      parsed,
    }
  })
}

/** What was typed is typed in the copy; its fingers are found anew, its strokes stay. */
function locksFor(layer: Layer, notes: readonly TabNote[]): Lock[] {
  const strokes = new Set(layer.locks.filter((l) => l.field === 'right').map((l) => l.target))
  return notes.flatMap((n) => [
    lockOf('typed', lockId('typed', n.id), n.id, n),
    ...(strokes.has(n.id) ? [lockOf('right', lockId('right', n.id), n.id, n.right)] : []),
  ])
}

/** Both hands of new measures; those of a given tab let go in the measure before as the first of them asks. */
function withFoundHands(score: Arranged, copies: ReadonlySet<Id>): Arranged {
  const { tune, arrangement } = score
  const joined = joinedUp(arrangement.base, timelineOf(tune.measures))
  const before = tune.measures[tune.measures.findIndex((m) => copies.has(m.id)) - 1]!
  const given = arrangement.regions[regionAt(tune, arrangement.regions, before.id)]?.given
  const found = new Set(given ? [before.id, ...copies] : copies)
  const base = finish(findingHands(joined, { ...arrangement, tune }, found, false))
  const own = new Map(base.notes.map((n) => [n.id, n]))
  const locks = base.locks.map((l) => {
    const note = own.get(l.target)
    return l.field === 'typed' && note && copies.has(note.pos.measure)
      ? lockOf('typed', l.id, l.target, note)
      : l
  })
  return { tune, arrangement: { ...arrangement, base: { ...base, locks } } }
}
