import { knownIn, present } from '../invariant.ts'
import { measureAt, melodyOf, posAt, ticksAt, type Timeline, timelineOf } from '../document/form/timeline.ts'
import type { ArrangementDoc } from '../document/arrangement.ts'
import type { TabNote } from '../document/tab.ts'
import { durationOf } from '../document/durationOf.ts'
import type { Id } from '../document/ids.ts'
import type { Duration, Pos, TuneDoc, TuneEvent } from '../document/tune.ts'
import { plainValues } from '../output/notation/plainValues.ts'
import { inFullMeasure } from '../music/time/metre.ts'
import { QUARTER, WHOLE, type Ticks } from '../music/time/ticks.ts'
import { done, refused, type Edited, type MelodyEdit } from './edited.ts'
import { freshIds } from './freshIds.ts'
import { filled, melodyIn, SHORTEST, untied, withEvents } from './melodyMeasure.ts'
import type { Score } from '../document/score.ts'

/**
 * Gives the notes of the melody from a moment on other lengths, one after the other without gaps: their pitches, words
 * and places stay theirs, and what else the tab strikes with them goes along. Rests fill what they leave free.
 */
export function editRhythm(score: Score, edit: Extract<MelodyEdit, { do: 'rhythm' }>): Edited {
  const { tune } = score
  const timeline = timelineOf(tune.measures)
  const start = ticksAt(timeline, edit.at)
  const melody = melodyOf(tune, timeline)
  const first = melody.findIndex((n) => n.start === start)
  if (first < 0) return refused('nothingThere')
  const own = melody.slice(first, first + edit.lengths.length)
  const lengths = edit.lengths.slice(0, own.length)
  if (lengths.some((l) => l < SHORTEST)) return refused('tooShort')
  const limit = melody[first + own.length]?.start ?? timeline.length
  const end = start + lengths.reduce((a, b) => a + b, 0)
  if (end > limit) {
    const starts = [...melody.slice(first).map((n) => n.start), timeline.length]
    const fitting = fittingIn(lengths, starts)
    const offer = fitting.length > 0 ? { ...edit, lengths: fitting } : undefined
    return refused('rhythmLong', { notes: own.length, room: (limit - start) / WHOLE }, offer)
  }
  const last = own.at(-1)!
  const onsets = lengths.reduce<Ticks[]>((all, l) => [...all, all.at(-1)! + l], [start])
  const ids = freshIds(tune)
  const triplets = tripletsOf(tune, timeline, onsets, ids.tuplet)
  if (!triplets) return refused('tuplet')
  // The beat in thirds in which the last note ends is filled up; nothing else can stand in it.
  const filledTo = tripletAt(triplets, end)?.to ?? end
  if (filledTo > limit) return refused('tuplet')
  const clear = Math.max(filledTo, last.start + last.duration)
  if (tearsTuplet(tune, timeline, start, clear)) return refused('tuplet')
  const heads = new Map(tune.events.map((e) => [e.id, e]))
  const moves = new Map<Ticks, Ticks>()
  let at = start
  const written = own.flatMap((n, i): TuneEvent[] => {
    const head = knownIn(heads, n.sourceId)
    moves.set(n.start, at)
    const pieces = piecesOf(tune, timeline, at, lengths[i]!, triplets)
    at += lengths[i]!
    const named = pieces.map((p, k) => ({ ...p, id: k === 0 ? head.id : ids.event() }))
    return named.map(({ id, pos, dur }, k): TuneEvent => {
      const next = named[k + 1]
      const base: TuneEvent =
        k === 0
          ? untied(head)
          : { ...BARE, pitch: present(head.pitch), chordTones: head.chordTones, id, voice: 0, pos, dur }
      return { ...base, pos, dur, ...(next ? { tieTo: next.id } : {}) }
    })
  })
  const rests = piecesOf(tune, timeline, end, filledTo - end, triplets).map(({ pos, dur }): TuneEvent => ({
    ...BARE,
    chordTones: [],
    id: ids.event(),
    voice: 0,
    pos,
    dur,
  }))
  const marked = {
    ...tune,
    tuplets: [...tune.tuplets, ...triplets.map(({ id }) => ({ id, actual: 3, normal: 2 }))],
  }
  const next = relaid(marked, timeline, start, clear, [...written, ...rests], ids.event)
  const { arrangement } = score
  return done({
    tune: next,
    ...(arrangement ? { arrangement: carriedAlong(arrangement, timeline, moves, tune) } : {}),
  })
}

const BARE = { graces: [], ornaments: [] } as const

/** The most of the first lengths that end where the note after them begins, or earlier. */
function fittingIn(lengths: readonly Ticks[], starts: readonly Ticks[]): readonly Ticks[] {
  let most = 0
  let at = starts[0]!
  lengths.forEach((l, i) => {
    at += l
    if (at <= (starts[i + 1] ?? at)) most = i + 1
  })
  return lengths.slice(0, most)
}

/** True where a stretch touches a tuplet without covering it. */
function tearsTuplet(tune: TuneDoc, timeline: Timeline, from: Ticks, to: Ticks): boolean {
  const inside = (e: TuneEvent) => {
    const at = ticksAt(timeline, e.pos)
    return at >= from && at + e.dur.ticks <= to
  }
  const touches = (e: TuneEvent) => {
    const at = ticksAt(timeline, e.pos)
    return at < to && at + e.dur.ticks > from
  }
  const groups = new Set(
    tune.events.filter((e) => e.voice === 0 && touches(e)).flatMap((e) => e.dur.tupletId ?? []),
  )
  return tune.events.some((e) => e.dur.tupletId && groups.has(e.dur.tupletId) && !inside(e))
}

/** A beat of a quarter that is parted in three. */
interface Triplet {
  readonly id: Id
  readonly from: Ticks
  readonly to: Ticks
}

const THIRD = QUARTER / 3

/** The beats that onsets part in three; undefined where one is parted otherwise too, or goes over a bar line. */
function tripletsOf(
  tune: TuneDoc,
  timeline: Timeline,
  onsets: readonly Ticks[],
  newId: () => Id,
): readonly Triplet[] | undefined {
  const beats = new Map<Ticks, Ticks[]>()
  for (const at of onsets) {
    if (at >= timeline.length) continue
    const m = measureAt(timeline, at)
    const within = inFullMeasure(tune.measures[m]!, at - timeline.starts[m]!) % QUARTER
    beats.set(at - within, [...(beats.get(at - within) ?? []), within])
  }
  const inThirds = [...beats].filter(([, at]) => at.some((w) => w === THIRD || w === 2 * THIRD))
  const whole = ([from, at]: readonly [Ticks, readonly Ticks[]]) => {
    const m = measureAt(timeline, Math.max(0, from))
    const bar = timeline.starts[m]! + tune.measures[m]!.length
    return from >= timeline.starts[m]! && from + QUARTER <= bar && at.every((w) => w % THIRD === 0)
  }
  if (!inThirds.every(whole)) return undefined
  return inThirds.map(([from]) => ({ id: newId(), from, to: from + QUARTER }))
}

/** The triplet that a moment lies within, its start aside. */
const tripletAt = (triplets: readonly Triplet[], at: Ticks): Triplet | undefined =>
  triplets.find((t) => at > t.from && at < t.to)

/** A stretch of written time as values none of which crosses a bar line, or goes into a triplet or out of it. */
function piecesOf(
  tune: TuneDoc,
  timeline: Timeline,
  from: Ticks,
  ticks: Ticks,
  triplets: readonly Triplet[],
): { pos: Pos; dur: Duration }[] {
  const pieces: { pos: Pos; dur: Duration }[] = []
  const end = from + ticks
  for (let at = from; at < end;) {
    const m = measureAt(timeline, at)
    const bar = timeline.starts[m]! + tune.measures[m]!.length
    const triplet = triplets.find((t) => at >= t.from && at < t.to)
    const next = triplet?.to ?? triplets.find((t) => t.from > at)?.from ?? end
    const until = Math.min(end, bar, next)
    if (triplet && until - at < QUARTER) {
      const written = durationOf(((until - at) * 3) / 2)
      pieces.push({
        pos: posAt(tune.measures, timeline, at),
        dur: { ...written, ticks: until - at, tupletId: triplet.id },
      })
      at = until
      continue
    }
    for (const v of plainValues(until - at)) {
      pieces.push({ pos: posAt(tune.measures, timeline, at), dur: durationOf(v.ticks) })
      at += v.ticks
    }
  }
  return pieces
}

/** A tune with a stretch of its melody written anew. */
function relaid(
  tune: TuneDoc,
  timeline: Timeline,
  from: Ticks,
  to: Ticks,
  written: readonly TuneEvent[],
  newId: () => Id,
): TuneDoc {
  // All at once: a tie may go on into a measure that is written later.
  const melodies = new Map<Id, readonly TuneEvent[]>()
  for (let m = measureAt(timeline, from); m < tune.measures.length && timeline.starts[m]! < to; m++) {
    const measure = tune.measures[m]!
    const start = timeline.starts[m]!
    const kept = melodyIn(tune, measure.id).flatMap((e): TuneEvent[] => {
      const at = start + e.pos.tick
      if (at >= to || at + e.dur.ticks <= from) return [e]
      return at < from ? [untied({ ...e, dur: durationOf(from - at) })] : []
    })
    const own = written.filter((e) => e.pos.measure === measure.id)
    const melody = [...kept, ...own].sort((a, b) => a.pos.tick - b.pos.tick)
    melodies.set(measure.id, filled(melody, measure, newId))
  }
  const others = tune.events.filter((e) => e.voice !== 0 || !melodies.has(e.pos.measure))
  return withEvents(tune, [...others, ...[...melodies.values()].flat()])
}

/** A tab in which what was struck with a note of the melody is struck with it still. */
function carriedAlong(
  arrangement: ArrangementDoc,
  timeline: Timeline,
  moves: ReadonlyMap<Ticks, Ticks>,
  tune: TuneDoc,
): ArrangementDoc {
  const goesTo = (n: TabNote) => moves.get(ticksAt(timeline, n.pos))
  // What gets in the way of a note that is moved gives way to it: of two on a string, the melody stays.
  const claimed = new Set<string>()
  const claim = (n: TabNote, at: Ticks) => {
    const key = `${n.place.string} ${at}`
    if (claimed.has(key)) return false
    claimed.add(key)
    return true
  }
  const melody = arrangement.base.notes.filter((n) => n.role === 'melody')
  for (const n of melody) claim(n, goesTo(n) ?? ticksAt(timeline, n.pos))
  const others = arrangement.base.notes.filter((n) => n.role !== 'melody')
  const moved = others.filter((n) => goesTo(n) !== undefined && claim(n, present(goesTo(n))))
  const stayed = others.filter((n) => goesTo(n) === undefined && claim(n, ticksAt(timeline, n.pos)))
  const kept = new Set([...melody, ...moved, ...stayed])
  const notes = arrangement.base.notes.flatMap((n) => {
    if (!kept.has(n)) return []
    const to = n.role === 'melody' ? undefined : goesTo(n)
    if (to === undefined) return [n]
    const pos = posAt(tune.measures, timeline, to)
    const room = present(tune.measures.find((m) => m.id === pos.measure)).length - pos.tick
    return [{ ...n, pos, dur: n.dur.ticks <= room ? n.dur : durationOf(room) }]
  })
  return { ...arrangement, base: { ...arrangement.base, notes } }
}
