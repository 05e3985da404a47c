import { knownIn } from '../invariant.ts'
import { readChordSymbol } from '../music/harmony/chordSymbol.ts'
import { LIMITS } from '../document/limits.ts'
import { durationOf } from '../document/durationOf.ts'
import type { ChordMark, Measure, Pos, TuneDoc, TuneEvent } from '../document/tune.ts'
import type { Pitch } from '../music/pitch/pitch.ts'
import { WHOLE, type Ticks } from '../music/time/ticks.ts'
import { writtenValue } from '../music/time/writtenValue.ts'
import { done, refused, type Edited, type MelodyEdit } from './edited.ts'
import { editRhythm } from './rhythm.ts'
import type { Score } from '../document/score.ts'
import { freshIds } from './freshIds.ts'
import { withoutEmptyExcess } from './measureLength.ts'
import {
  filled,
  melodyIn,
  samePitch,
  SHORTEST,
  untied,
  withEvents,
  withMelodyIn,
  type MelodyMeasure,
} from './melodyMeasure.ts'

/** Writes the melody. What a note covers gives way to it; what it leaves is filled with rests, so that measures always sum. */
export function editMelody(score: Score, edit: MelodyEdit): Edited {
  const result = edited(score, edit)
  if (!result.ok) return result
  return done({ ...result.score, tune: withoutEmptyExcess(score.tune, result.score.tune) })
}

function edited(score: Score, edit: MelodyEdit): Edited {
  const { tune } = score
  const measure = tune.measures.find((m) => m.id === edit.at.measure)
  if (!measure) return refused('noSuchMeasure')
  const event = melodyIn(tune, measure.id).find((e) => e.pos.tick === edit.at.tick)
  const to = (next: TuneDoc): Edited => done({ ...score, tune: next })
  switch (edit.do) {
    case 'note':
      return write(score, measure, edit, edit.pitch)
    case 'rest':
      return write(score, measure, edit, undefined)
    case 'value':
      return event ? write(score, measure, edit, event.pitch) : refused('nothingThere')
    case 'pitch': {
      if (!event?.pitch) return refused('nothingThere')
      const changed = { ...event, pitch: edit.pitch }
      return to(withEvents(tune, tune.events.map((e) => (e === event ? changed : e)))) // prettier-ignore
    }
    case 'rhythm':
      return editRhythm(score, edit)
    case 'tie':
      return tie(score, event)
    case 'triplet':
      return triplet(score, measure, event)
    case 'chord':
      if (edit.symbol.length > LIMITS.chordSymbol)
        return refused(
          'textLong',
          { most: LIMITS.chordSymbol },
          { ...edit, symbol: edit.symbol.slice(0, LIMITS.chordSymbol) },
        )
      return edit.at.tick < measure.length
        ? to(withChord(tune, edit.at, edit.symbol))
        : refused('nothingThere')
    case 'word': {
      if (!event?.pitch) return refused('unsung')
      const { lyric: _, ...plain } = event
      const text = edit.text.trim()
      if (text.length > LIMITS.lyric)
        return refused('textLong', { most: LIMITS.lyric }, { ...edit, text: text.slice(0, LIMITS.lyric) })
      const worded: TuneEvent = text === '' ? plain : { ...plain, lyric: text }
      return to({ ...tune, events: tune.events.map((e) => (e === event ? worded : e)) })
    }
  }
}

function write(
  score: Score,
  measure: Measure,
  edit: Extract<MelodyEdit, { do: 'note' | 'rest' | 'value' }>,
  pitch: Pitch | undefined,
): Edited {
  const { tune } = score
  const { at, ticks } = edit
  const room = measure.length - at.tick
  if (room <= 0) return refused('nothingThere')
  if (ticks < SHORTEST) return refused('tooShort', {}, { ...edit, ticks: Math.min(SHORTEST, room) })
  if (ticks > room) return refused('overfull', { room: room / WHOLE }, { ...edit, ticks: room })
  const melody = melodyIn(tune, measure.id)
  const before = melody.find((e) => e.pos.tick === at.tick)
  if (before?.dur.tupletId && before.dur.ticks === ticks) {
    const changed = struck(before, pitch, before.dur)
    return done({ ...score, tune: withMelodyIn(tune, measure.id, melody.map((e) => (e === before ? changed : e))) }) // prettier-ignore
  }
  const splitsTuplet = melody.find((e) => e.dur.tupletId && overlaps(e, at.tick, ticks))
  if (splitsTuplet && !wholeTuplets(melody, at.tick, ticks)) {
    const own = before?.dur.tupletId ? before : undefined
    return refused('tuplet', {}, own ? { ...edit, ticks: own.dur.ticks } : undefined)
  }
  const ids = freshIds(tune)
  const base: TuneEvent = before ?? {
    id: ids.event(),
    voice: 0,
    pos: at,
    dur: durationOf(ticks),
    chordTones: [],
    graces: [],
    ornaments: [],
  }
  const written = struck(base, pitch, durationOf(ticks))
  const cleared = clearedOf(melody, at.tick, ticks)
  const next = [...cleared, written].sort((a, b) => a.pos.tick - b.pos.tick)
  return done({ ...score, tune: withMelodyIn(tune, measure.id, filled(next, measure, ids.event)) })
}

/** An event with another pitch and length; a rest has nothing that belongs to a note. */
function struck(event: TuneEvent, pitch: Pitch | undefined, dur: TuneEvent['dur']): TuneEvent {
  const { pitch: _, ...silent } = event
  if (pitch) {
    const kept = samePitch(pitch, event.pitch) && dur.ticks === event.dur.ticks ? event : untied(event)
    return { ...kept, pitch, dur, chordTones: event.pitch ? event.chordTones : [] }
  }
  const { lyric: __, moreLyrics: ___, slurred: ____, ...bare } = untied(silent)
  return { ...bare, dur, chordTones: [], graces: [], ornaments: [] }
}

const overlaps = (e: TuneEvent, from: Ticks, ticks: Ticks) =>
  e.pos.tick < from + ticks && e.pos.tick + e.dur.ticks > from

/** True where a stretch covers every tuplet that it touches from its first note to its last. */
function wholeTuplets(melody: MelodyMeasure, from: Ticks, ticks: Ticks): boolean {
  const touched = new Set(melody.filter((e) => overlaps(e, from, ticks)).flatMap((e) => e.dur.tupletId ?? []))
  return melody
    .filter((e) => e.dur.tupletId !== undefined && touched.has(e.dur.tupletId))
    .every((e) => e.pos.tick >= from && e.pos.tick + e.dur.ticks <= from + ticks)
}

/** A melody without what stands in a stretch; a note that reaches into it is shortened. */
function clearedOf(melody: MelodyMeasure, from: Ticks, ticks: Ticks): TuneEvent[] {
  return melody.flatMap((e) => {
    if (!overlaps(e, from, ticks)) return [e]
    return e.pos.tick < from ? [untied({ ...e, dur: durationOf(from - e.pos.tick) })] : []
  })
}

function tie(score: Score, event: TuneEvent | undefined): Edited {
  const { tune } = score
  if (!event?.pitch) return refused('nothingThere')
  const set = (changed: TuneEvent) =>
    done({ ...score, tune: { ...tune, events: tune.events.map((e) => (e === event ? changed : e)) } })
  if (event.tieTo) return set(untied(event))
  const melody = tune.measures.flatMap((m) => melodyIn(tune, m.id))
  const next = melody[melody.findIndex((e) => e.id === event.id) + 1]
  if (!next?.pitch) return refused('noNext')
  if (!samePitch(next.pitch, event.pitch))
    return refused('otherPitch', {}, { do: 'pitch', at: next.pos, pitch: event.pitch })
  return set({ ...event, tieTo: next.id })
}

/** A note becomes three in its time: itself, and two rests to be written over. A triplet becomes its first note again. */
function triplet(score: Score, measure: Measure, event: TuneEvent | undefined): Edited {
  const { tune } = score
  if (!event) return refused('nothingThere')
  const melody = melodyIn(tune, measure.id)
  const ids = freshIds(tune)
  if (event.dur.tupletId) {
    const group = melody.filter((e) => e.dur.tupletId === event.dur.tupletId)
    const ticks = group.reduce((sum, e) => sum + e.dur.ticks, 0)
    const first = { ...untied(group[0]!), dur: durationOf(ticks) }
    const next = melody.flatMap((e) => (e === group[0] ? [first] : group.includes(e) ? [] : [e]))
    return done({ ...score, tune: withMelodyIn(tune, measure.id, filled(next, measure, ids.event)) })
  }
  const third = event.dur.ticks / 3
  if (!Number.isInteger(third) || third < SHORTEST) return refused('tooShort')
  const id = ids.tuplet()
  // Three in the time of two: each is written as half of the whole.
  const dur = { ticks: third, ...writtenValue(event.dur.ticks / 2 / WHOLE), tupletId: id }
  const group = [0, 1, 2].map((i): TuneEvent =>
    i === 0
      ? { ...untied(event), dur }
      : {
          id: ids.event(),
          voice: 0,
          pos: { measure: measure.id, tick: event.pos.tick + i * third },
          dur,
          chordTones: [],
          graces: [],
          ornaments: [],
        },
  )
  const withTuplet = { ...tune, tuplets: [...tune.tuplets, { id, actual: 3, normal: 2 }] }
  const next = melody.flatMap((e) => (e === event ? group : [e]))
  return done({ ...score, tune: withMelodyIn(withTuplet, measure.id, next) })
}

/** A chord at a moment, in the place of the one that stood there; an empty symbol takes it away. */
function withChord(tune: TuneDoc, at: Pos, symbol: string): TuneDoc {
  const text = symbol.trim().replace(/"/g, '')
  const others = tune.chords.filter((c) => c.pos.measure !== at.measure || c.pos.tick !== at.tick)
  const before = tune.chords.find((c) => !others.includes(c))
  if (text === '') return { ...tune, chords: others }
  const reading = readChordSymbol(text)
  const mark: ChordMark = {
    id: before?.id ?? freshIds(tune).chord(),
    pos: at,
    symbol: text,
    origin: 'typed',
    ...(reading.kind === 'chord' ? { parsed: reading.chord } : {}),
  }
  const indexOf = new Map(tune.measures.map((m, i) => [m.id, i]))
  const chords = [...others, mark].sort(
    (a, b) => knownIn(indexOf, a.pos.measure) - knownIn(indexOf, b.pos.measure) || a.pos.tick - b.pos.tick,
  )
  return { ...tune, chords }
}
