import { omit } from 'es-toolkit'
import { knownIn, present } from '../invariant.ts'
import { melodyOf, ticksAt, timelineOf, type Timeline } from '../document/form/timeline.ts'
import { withNote, withoutNotes } from '../arrange/manual/placed.ts'
import { withHands } from '../arrange/manual/findHands.ts'
import type { ArrangementDoc, Layer } from '../document/arrangement.ts'
import { lockId, lockOf, type Lock, type LockValues } from '../document/locks.ts'
import { hasSlideRoom, isSlideMark, OTHER_WAY, SLIDE_MARKS } from '../document/marks.ts'
import { isArrival, LONGEST_REMARK, type TabNote } from '../document/tab.ts'
import { durationOf } from '../document/durationOf.ts'
import type { Id } from '../document/ids.ts'
import { lastFret, openPitch, pitchAt, placesOf, type Place, type Setup } from '../instrument/setup.ts'
import { spellInKey } from '../music/pitch/key.ts'
import { midiOf, type Midi, type Pitch } from '../music/pitch/pitch.ts'
import { handNoteId, melodyNoteId } from '../document/noteIds.ts'
import { WHOLE, type Ticks } from '../music/time/ticks.ts'
import { done, refused, type Edited, type EditRefusal, type TabEdit } from './edited.ts'
import type { Score } from '../document/score.ts'
import { melodyIn, SHORTEST, untied } from './melodyMeasure.ts'
import { editMelody } from './melody.ts'
import { soundedOtherwise } from './sounded.ts'
import { tidyTab } from './tidyTab.ts'

type Arranged = Score & { readonly arrangement: ArrangementDoc }
type Order<K extends TabEdit['do']> = Extract<TabEdit, { do: K }>

/**
 * Writes the tab. What is written is locked as `typed` (or `erased`), so that another arrangement keeps it; both hands
 * are found again in the measure around it. A note of the melody is written into the tune as well.
 */
export function editTab(score: Score, edit: TabEdit): Edited {
  if (!score.arrangement) return refused('noTab')
  const arranged = score as Arranged
  if (edit.do === 'fret') return playedAs(writeFret(arranged, edit), edit)
  if (edit.do === 'finger') return refinger(arranged, edit)
  const note = arranged.arrangement.base.notes.find((n) => n.id === edit.note)
  if (!note) return refused('nothingThere')
  switch (edit.do) {
    case 'erase':
      return erase(arranged, note)
    case 'restring':
      return restring(arranged, note, edit)
    case 'length':
      return lengthen(arranged, note, edit)
    case 'hold':
      return holdOver(arranged, note)
    case 'left': {
      if (note.place.fret === 0) return refused('notFretted')
      if (edit.finger === 'T' && !reachesOver(arranged.arrangement.setup, note.place.string))
        return refused('noThumb')
      return done(handSet(arranged, note, 'left', edit.finger === 0 ? undefined : edit.finger))
    }
    case 'right':
      return done(handSet(arranged, note, 'right', edit.sign === 'none' ? undefined : edit.sign))
    case 'mark':
      return writeMark(arranged, note, edit)
    case 'remark':
      return writeRemark(arranged, note, edit)
    case 'express': {
      const { [edit.part]: _, ...plain } = note
      return done(typed(arranged, edit.value === undefined ? plain : { ...plain, [edit.part]: edit.value }))
    }
    default: {
      const found = soundedOtherwise(arranged.arrangement, timelineOf(arranged.tune.measures), note, edit)
      return found.ok ? done(typed(arranged, found.note)) : { ok: false, refusal: found.refusal }
    }
  }
}

/** True where the thumb comes round the neck to a string: the lowest two of a guitar, for a hand that does so. */
const reachesOver = ({ instrument, player }: Setup, string: number): boolean =>
  player.techniques.thumbOver && instrument.strings >= 6 && string >= instrument.strings - 1

/** A few words at a note; none take them off. */
function writeRemark(score: Arranged, note: TabNote, edit: Order<'remark'>): Edited {
  const text = edit.text.trim().replace(/\s+/g, ' ')
  if (text.length > LONGEST_REMARK)
    return refused('textLong', { most: LONGEST_REMARK }, { ...edit, text: text.slice(0, LONGEST_REMARK) })
  const { remark: _, ...plain } = note
  return done(typed(score, text === '' ? plain : { ...plain, remark: text }))
}

/** A note without slides for which its place has no room. */
function withRoomToSlide(note: TabNote, last: number): TabNote {
  const gone = SLIDE_MARKS.filter((m) => note[m] && !hasSlideRoom(m, note.place, last))
  return gone.length > 0 ? omit(note, gone) : note
}

function writeMark(score: Arranged, note: TabNote, { mark, on }: Order<'mark'>): Edited {
  if (mark === 'optional') return done(typed(score, { ...note, optional: on }))
  if (!on) return done(typed(score, omit(note, [mark])))
  if (!isSlideMark(mark)) return done(typed(score, { ...note, [mark]: true }))
  const { place } = note
  if (place.fret === 0 || place.harmonic || note.attack === 'muted') return refused('notFretted')
  const last = lastFret(score.arrangement.setup, place.string)
  if (!hasSlideRoom(mark, place, last))
    return refused('noSlide', { last }, { do: 'mark', note: note.id, mark: OTHER_WAY[mark], on })
  const free = omit(note, [OTHER_WAY[mark]])
  // What is slid into from nowhere is plucked, not reached from the note before.
  const attack = mark.startsWith('slideFrom') && isArrival(note.attack) ? ('pluck' as const) : note.attack
  return done(typed(score, { ...free, attack, [mark]: true }))
}

/** A note that was written, played as it is said of it: all of it, or the note is not written either. */
function playedAs(written: Edited, { at, string, played = [] }: Order<'fret'>): Edited {
  let now = written
  for (const manner of played) {
    if (!now.ok) return now
    const note = now.score.arrangement?.base.notes.find(
      (n) => n.place.string === string && n.pos.measure === at.measure && n.pos.tick === at.tick,
    )
    if (!note) return refused('nothingThere')
    now = editTab(now.score, { ...manner, note: note.id })
  }
  return now
}

function writeFret(score: Arranged, edit: Order<'fret'>): Edited {
  const { tune, arrangement } = score
  const { setup, base, transposed } = arrangement
  const { at, string, fret } = edit
  const measure = tune.measures.find((m) => m.id === at.measure)
  if (!measure || at.tick < 0 || at.tick >= measure.length) return refused('noSuchMeasure')
  if (string < 1 || string > setup.instrument.strings) return refused('noPlace', { string })
  const timeline = timelineOf(tune.measures)
  const start = ticksAt(timeline, at)
  const existing = base.notes.find(
    (n) => n.place.string === string && n.pos.measure === at.measure && n.pos.tick === at.tick,
  )
  const role = existing?.role === 'melody' ? 'melody' : edit.role
  const midi = openPitch(setup, string) + fret
  const last = lastFret(setup, string)
  if (fret < 0 || fret > last) {
    const near = freeStrings(base, timeline, setup, midi, start)[0]
    return refused(
      'beyondNeck',
      { last },
      near ? { ...edit, ...near } : { ...edit, fret: Math.min(Math.max(fret, 0), last) },
    )
  }
  const covering = base.notes.find(
    (n) =>
      n.role === 'melody' &&
      n.place.string === string &&
      ticksAt(timeline, n.pos) < start &&
      ticksAt(timeline, n.pos) + n.dur.ticks > start,
  )
  if (covering && role !== 'melody') {
    const near = freeStrings(base, timeline, setup, midi, start)[0]
    return refused('stringTaken', { string }, near ? { ...edit, ...near } : undefined)
  }
  const ticks = existing?.dur.ticks ?? edit.ticks
  const room = measure.length - at.tick
  if (role !== 'melody' && !existing && ticks > room)
    return refused('overfull', { room: room / WHOLE }, { ...edit, ticks: room })
  const place: Place = { string, fret }
  if (role !== 'melody') {
    const id = existing?.id ?? freeId(base, handNoteId(at, string))
    return done(
      typed(score, existing ? moved(existing, place) : { ...plainNote(id, edit, place), origin: 'hand' }),
    )
  }
  const pitch = spellInKey(midi - transposed, measure.key)
  const wrote = writeMelody(score, edit, pitch, midi)
  if (!wrote.ok) return wrote
  const source = present(melodyIn(wrote.score.tune, at.measure).find((e) => e.pos.tick === at.tick))
  const before = base.notes.find((n) => n.sourceId === source.id && n.role === 'melody')
  const note = before
    ? moved(before, place)
    : { ...plainNote(melodyNoteId(source.id), edit, place), sourceId: source.id }
  const kept =
    existing && existing.role !== 'melody' ? without(wrote.score as Arranged, existing) : wrote.score
  const followed = following(kept as Arranged)
  const lengths = melodyOf(followed.tune, timelineOf(followed.tune.measures))
  const own = present(lengths.find((n) => n.sourceId === source.id))
  return done(typed(followed, { ...note, dur: durationOf(own.duration) }))
}

/** The melody at a moment: another pitch where a note begins there, with its ties; a new note elsewhere. */
function writeMelody(score: Arranged, edit: Order<'fret'>, pitch: Pitch, midi: Midi): Edited {
  const { at, ticks } = edit
  const event = melodyIn(score.tune, at.measure).find((e) => e.pos.tick === at.tick && e.pitch)
  if (!event) {
    const wrote = editMelody(score, { do: 'note', at, ticks, pitch })
    return wrote.ok ? wrote : { ok: false, refusal: asFret(wrote.refusal, edit) }
  }
  // In the middle of a tied note the string is struck anew: the tie into it ends.
  const into = score.tune.events.find((e) => e.tieTo === event.id)
  const same = midiOf(present(event.pitch)) + score.arrangement.transposed === midi
  if (same && !into) return done(score)
  const chain = new Set<Id>()
  const byId = new Map(score.tune.events.map((e) => [e.id, e]))
  for (let e = byId.get(event.id); e && !chain.has(e.id); e = e.tieTo ? byId.get(e.tieTo) : undefined)
    chain.add(e.id)
  const events = score.tune.events.map((e) =>
    e === into ? untied(e) : chain.has(e.id) && !same ? { ...e, pitch } : e,
  )
  return done({ ...score, tune: { ...score.tune, events } })
}

function asFret({ offer, ...refusal }: EditRefusal, edit: Order<'fret'>): EditRefusal {
  return offer?.do === 'note' ? { ...refusal, offer: { ...edit, ticks: offer.ticks } } : refusal
}

function plainNote(id: Id, { at, ticks, role }: Order<'fret'>, place: Place): TabNote {
  return {
    id,
    pos: at,
    dur: durationOf(ticks),
    role,
    notationVoice: role === 'melody' ? 1 : 2,
    place,
    left: 0,
    right: 'none',
    attack: 'pluck',
    optional: false,
  }
}

/** A note at another place: what belonged to the old one (bend, harmonic, finger, short notes) is gone. */
function moved(note: TabNote, place: Place): TabNote {
  const { bend: _, graces: __, ...plain } = note
  // At another fret another finger may be the one that is there.
  const same = place.fret === note.place.fret && place.fret > 0
  return { ...plain, place, left: same ? note.left : 0, attack: note.graces ? 'pluck' : note.attack }
}

function freeId(base: Layer, wanted: Id): Id {
  const used = new Set(base.notes.map((n) => n.id))
  let id = wanted
  for (let i = 2; used.has(id); i++) id = `${wanted}.${i}`
  return id
}

/** Strings on which a pitch can be had at a time without striking or cutting another note, lowest fret first. */
function freeStrings(
  base: Layer,
  timeline: Timeline,
  setup: Setup,
  midi: Midi,
  start: Ticks,
  own?: Id,
): Place[] {
  const taken = new Set(
    base.notes
      .filter((n) => {
        const from = ticksAt(timeline, n.pos)
        return n.id !== own && from <= start && from + n.dur.ticks > start
      })
      .map((n) => n.place.string),
  )
  return placesOf(setup, midi)
    .filter((p) => !taken.has(p.string))
    .sort((a, b) => a.fret - b.fret)
}

function restring(score: Arranged, note: TabNote, edit: Order<'restring'>): Edited {
  const { setup, base } = score.arrangement
  const timeline = timelineOf(score.tune.measures)
  const { string } = edit
  if (string === note.place.string) return refused('sameString')
  const midi = pitchAt(setup, note.place) + (note.bend ?? 0)
  const free = freeStrings(base, timeline, setup, midi, ticksAt(timeline, note.pos), note.id)
  const nearest = [...free]
    .filter((p) => p.string !== note.place.string)
    .sort((a, b) => Math.abs(a.string - string) - Math.abs(b.string - string))[0]
  const offer = nearest && { ...edit, string: nearest.string }
  const known = string >= 1 && string <= setup.instrument.strings
  const fret = known ? midi - openPitch(setup, string) : -1
  if (!known || fret < 0 || fret > lastFret(setup, string)) return refused('noPlace', { string }, offer)
  if (!free.some((p) => p.string === string)) return refused('stringTaken', { string }, offer)
  return done(typed(score, moved(note, { string, fret })))
}

function lengthen(score: Arranged, note: TabNote, edit: Order<'length'>): Edited {
  const measure = present(score.tune.measures.find((m) => m.id === note.pos.measure))
  const room = measure.length - note.pos.tick
  if (edit.ticks < SHORTEST) return refused('tooShort', {}, { ...edit, ticks: Math.min(room, SHORTEST) })
  if (edit.ticks > room) return refused('overfull', { room: room / WHOLE }, { ...edit, ticks: room })
  if (note.role !== 'melody') return done(typed(score, { ...note, dur: durationOf(edit.ticks) }))
  const wrote = editMelody(untiedFrom(score, note), { do: 'value', at: note.pos, ticks: edit.ticks })
  if (!wrote.ok) {
    const { offer, ...refusal } = wrote.refusal
    return {
      ok: false,
      refusal: offer?.do === 'value' ? { ...refusal, offer: { ...edit, ticks: offer.ticks } } : refusal,
    }
  }
  return done(typed(following(wrote.score as Arranged), { ...note, dur: durationOf(edit.ticks) }))
}

/** A note below the melody over the bar line, to the next note on its string or the end of that measure; or back to the line. */
function holdOver(score: Arranged, note: TabNote): Edited {
  const { tune, arrangement } = score
  if (note.role === 'melody') return editMelody(score, { do: 'tie', at: note.pos })
  const timeline = timelineOf(tune.measures)
  const index = knownIn(timeline.indexOf, note.pos.measure)
  const start = ticksAt(timeline, note.pos)
  const line = timeline.starts[index + 1]
  if (line === undefined) return refused('noNext')
  const lasting = (until: Ticks) => done(typed(score, { ...note, dur: durationOf(until - start) }))
  if (start + note.dur.ticks > line) return lasting(line)
  const later = arrangement.base.notes.flatMap((n) => {
    const at = ticksAt(timeline, n.pos)
    return n.place.string === note.place.string && at > start ? [at] : []
  })
  const until = Math.min(timeline.starts[index + 2] ?? timeline.length, ...later)
  return until > line ? lasting(until) : refused('stringTaken', { string: note.place.string })
}

/** What a note of the melody is tied to falls silent: its length is said anew. */
function untiedFrom(score: Arranged, note: TabNote): Arranged {
  let next: Score = score
  const byId = new Map(score.tune.events.map((e) => [e.id, e]))
  const seen = new Set<Id>()
  for (let id = byId.get(note.sourceId ?? '')?.tieTo; id && !seen.has(id); id = byId.get(id)?.tieTo) {
    seen.add(id)
    const e = knownIn(byId, id)
    const rested = editMelody(next, { do: 'rest', at: e.pos, ticks: e.dur.ticks })
    if (rested.ok) next = rested.score
  }
  return next as Arranged
}

function erase(score: Arranged, note: TabNote): Edited {
  if (note.role !== 'melody') return done(without(score, note))
  const source = score.tune.events.find((e) => e.id === note.sourceId)
  if (!source) return done(without(score, note))
  const rested = editMelody(untiedFrom(score, note), { do: 'rest', at: source.pos, ticks: source.dur.ticks })
  return rested.ok ? done(without(following(rested.score as Arranged), note)) : rested
}

/** A score without a note of the tab. One that an arrangement would bring again is kept out by a lock. */
function without(score: Arranged, note: TabNote): Arranged {
  const { base } = score.arrangement
  const timeline = timelineOf(score.tune.measures)
  const inSource = note.role === 'melody' && !score.tune.events.some((e) => e.id === note.sourceId && e.pitch)
  const byHand = note.origin === 'hand' || inSource
  const locks = [...base.locks.filter((l) => l.target !== note.id), ...(byHand ? [] : [erasedLock(note)])]
  const layer = withoutNotes({ ...base, locks }, (n) => n.id === note.id, timeline)
  return settle(score, layer, new Set([note.pos.measure]))
}

const erasedLock = ({ id, pos }: TabNote): Lock => lockOf('erased', lockId('erased', id), id, pos)

/** A score with a note written by hand: locked as it is, the hands found again around it. */
function typed(score: Arranged, wanted: TabNote): Arranged {
  const { base, setup } = score.arrangement
  const note = withRoomToSlide(wanted, lastFret(setup, wanted.place.string))
  const timeline = timelineOf(score.tune.measures)
  const measures = new Set([note.pos.measure])
  const before = base.notes.find((n) => n.id === note.id)
  const kept = base.locks.filter(
    (l) => l.target !== note.id || (l.field !== 'typed' && l.field !== 'erased' && l.field !== 'place'),
  )
  // Another place wants other fingers: those that were set for the old one are free again.
  const stays =
    !before || (before.place.string === note.place.string && before.place.fret === note.place.fret)
  const locks = stays ? kept : kept.filter((l) => l.target !== note.id || l.field !== 'left')
  const settledScore = settle(score, withNote({ ...base, locks }, note, timeline), measures)
  const { arrangement } = settledScore
  const value = arrangement.base.notes.find((n) => n.id === note.id) ?? note
  const lock = lockOf('typed', lockId('typed', note.id), note.id, value)
  // What gave way to the note would come again with another arrangement, if it is not kept out.
  const here = new Set(arrangement.base.notes.map((n) => n.id))
  const gone = base.notes.filter((n) => n.id !== note.id && n.role !== 'melody' && !here.has(n.id))
  const lost = new Set(gone.map((n) => n.id))
  const erased = gone.filter((n) => n.origin !== 'hand').map(erasedLock)
  const all = [...arrangement.base.locks.filter((l) => !lost.has(l.target)), ...erased, lock]
  return { ...settledScore, arrangement: { ...arrangement, base: { ...arrangement.base, locks: all } } }
}

/** A score in which a hand's finger or sign is set for a note, or left to be found again. */
function handSet<F extends 'left' | 'right'>(
  score: Arranged,
  note: TabNote,
  field: F,
  value: LockValues[F] | undefined,
): Arranged {
  const { base } = score.arrangement
  const others = base.locks.filter((l) => l.target !== note.id || l.field !== field)
  const locks =
    value === undefined ? others : [...others, lockOf(field, lockId(field, note.id), note.id, value)]
  return settle(score, { ...base, locks }, new Set([note.pos.measure]))
}

function refinger(score: Arranged, { from, to }: Order<'finger'>): Edited {
  const measures = score.tune.measures.slice(from, to + 1).map((m) => m.id)
  if (from < 0 || measures.length === 0 || to < from) return refused('noSuchMeasure')
  const { tune, arrangement } = score
  const base = withHands(arrangement.base, { ...arrangement, tune }, new Set(measures), false)
  return done({ tune, arrangement: { ...arrangement, base } })
}

function settle(score: Arranged, layer: Layer, measures: ReadonlySet<Id>): Arranged {
  const { tune, arrangement } = score
  return {
    tune,
    arrangement: { ...arrangement, base: withHands(layer, { ...arrangement, tune }, measures, true) },
  }
}

const following = ({ tune, arrangement }: Arranged): Arranged => ({
  tune,
  arrangement: tidyTab(tune, arrangement),
})
