import { omit } from 'es-toolkit'
import { present } from '../invariant.ts'
import { ticksAt, type Timeline } from '../document/form/timeline.ts'
import type { ArrangementDoc } from '../document/arrangement.ts'
import { isArrival, type Arrival, type Attack, type TabNote } from '../document/tab.ts'
import { harmonicsOf } from '../instrument/harmonics.ts'
import {
  artificialPlacesOf,
  lastFret,
  openPitch,
  pitchAt,
  placesOf,
  type Place,
  type Setup,
} from '../instrument/setup.ts'
import { barNotes } from '../document/barNotes.ts'
import { graceFinger } from '../arrange/manual/graceFinger.ts'
import { bendRange } from '../instrument/stringBend.ts'
import { refused, type EditRefusal, type TabEdit } from './edited.ts'

type SoundedEdit = Extract<TabEdit, { do: 'attack' | 'bend' | 'harmonic' | 'grace' | 'offset' }>

type Sounded =
  { readonly ok: true; readonly note: TabNote } | { readonly ok: false; readonly refusal: EditRefusal }

const as = (note: TabNote): Sounded => ({ ok: true, note })

/** A note sounded in another way: its attack, a bend, a harmonic, a short note before it. */
export function soundedOtherwise(
  { setup, base }: Pick<ArrangementDoc, 'setup' | 'base'>,
  timeline: Timeline,
  note: TabNote,
  edit: SoundedEdit,
): Sounded {
  switch (edit.do) {
    case 'attack':
      if (edit.attack === 'bottle' && (note.place.fret === 0 || note.place.harmonic))
        return refused('notFretted')
      return isArrival(edit.attack)
        ? arriving(setup, beforeOnString(base.notes, timeline, note), note, edit, edit.attack)
        : as(straight(note, edit.attack))
    case 'bend':
      return bent(setup, note, edit)
    case 'harmonic':
      return touched(setup, note, edit)
    case 'grace':
      return graced(setup, note, edit)
    case 'offset':
      return beside(barNotes(base).has(note.id), note, edit)
  }
}

/** Farthest from its fret that a bottleneck is asked to stand, in cents: half a semitone. */
const MOST_CENTS = 50

function beside(onBar: boolean, note: TabNote, edit: Extract<TabEdit, { do: 'offset' }>): Sounded {
  if (note.place.fret === 0) return refused('notFretted')
  if (!onBar) return refused('onlyBar', {}, { do: 'attack', note: note.id, attack: 'bottle' })
  const cents = Math.round(Math.min(MOST_CENTS, Math.max(-MOST_CENTS, edit.cents)))
  const { offsetCents: _, ...place } = note.place
  return as({ ...note, place: cents === 0 ? place : { ...place, offsetCents: cents } })
}

function straight(note: TabNote, attack: Attack): TabNote {
  const { graces: _, ...rest } = note
  // What is reached from a note on its string is not slid into from nowhere.
  const free = isArrival(attack) ? omit(rest, ['slideFromBelow', 'slideFromAbove']) : rest
  const plain = attack === 'bottle' ? free : { ...free, place: omit(note.place, ['offsetCents']) }
  return { ...plain, attack }
}

function beforeOnString(notes: readonly TabNote[], timeline: Timeline, note: TabNote): TabNote | undefined {
  const start = ticksAt(timeline, note.pos)
  return notes
    .filter((n) => n.place.string === note.place.string && ticksAt(timeline, n.pos) < start)
    .sort((a, b) => ticksAt(timeline, b.pos) - ticksAt(timeline, a.pos))[0]
}

function arriving(
  setup: Setup,
  from: TabNote | undefined,
  note: TabNote,
  edit: Extract<TabEdit, { do: 'attack' }>,
  attack: Arrival,
): Sounded {
  if (!from) return refused('noNext')
  const step = note.place.fret - from.place.fret
  const plain = straight(note, attack)
  switch (attack) {
    case 'hammer':
      return step > 0
        ? as(plain)
        : refused('higherFret', {}, step < 0 ? { ...edit, attack: 'pull' } : undefined)
    case 'pull':
      return step < 0
        ? as(plain)
        : refused('lowerFret', {}, step > 0 ? { ...edit, attack: 'hammer' } : undefined)
    case 'slide':
      if (step === 0 || from.place.fret === 0) return refused(step === 0 ? 'higherFret' : 'notFretted')
      return note.place.fret === 0 ? refused('notFretted') : as(plain)
    case 'bend':
    case 'release': {
      const midi = pitchAt(setup, note.place) + (note.bend ?? 0)
      const semitones = midi - pitchAt(setup, from.place)
      const before = from.bend ?? 0
      const { most } = bendRange(setup, from.place)
      if (attack === 'bend' && (semitones <= before || semitones > most)) return refused('noRoom', { most })
      if (attack === 'release' && (semitones < 0 || semitones >= before)) return refused('lowerFret')
      const { bend: _, ...unbent } = plain
      const place = { string: from.place.string, fret: from.place.fret }
      return as({ ...unbent, place, left: from.left, ...(semitones > 0 ? { bend: semitones } : {}) })
    }
  }
}

/** Semitones that a bend may be asked for. */
const BENDS = [1, 2, 3, 4] as const

/** A bend of a plucked note: the melody keeps its pitch, so its place moves down; another note rises. */
function bent(setup: Setup, note: TabNote, edit: Extract<TabEdit, { do: 'bend' }>): Sounded {
  const { bend = 0, ...plain } = note
  const { string } = note.place
  const keeps = note.role === 'melody'
  const fretFor = (semitones: number) => note.place.fret + (keeps ? bend - semitones : 0)
  const reaches = (semitones: number) =>
    semitones <= bendRange(setup, { string, fret: fretFor(semitones) }).most &&
    fretFor(semitones) <= lastFret(setup, string)
  const fret = fretFor(edit.semitones)
  const offNeck = !Number.isInteger(fret) || fret > lastFret(setup, string)
  if (edit.semitones < 0 || offNeck || (edit.semitones > 0 && !reaches(edit.semitones))) {
    const most = BENDS.findLast(reaches) ?? 0
    return refused('noRoom', { most }, most > 0 ? { ...edit, semitones: most } : undefined)
  }
  const place: Place = { string, fret }
  const other = {
    ...plain,
    place,
    attack: plain.attack === 'release' || plain.attack === 'bend' ? ('pluck' as const) : plain.attack,
  }
  return as(edit.semitones > 0 ? { ...other, bend: edit.semitones } : other)
}

function touched(setup: Setup, note: TabNote, edit: Extract<TabEdit, { do: 'harmonic' }>): Sounded {
  const { bend = 0, graces: _, ...plain } = note
  const midi = pitchAt(setup, note.place) + bend
  const near = (a: Place, b: Place) =>
    Math.abs(a.string - note.place.string) - Math.abs(b.string - note.place.string) || a.fret - b.fret
  const found =
    edit.kind === 'natural'
      ? harmonicsOf(setup)
          .filter((h) => h.midi === midi)
          .map(({ string, fret, parts }): Place => ({ string, fret, harmonic: parts }))
          .sort(near)[0]
      : edit.kind === 'artificial'
        ? artificialPlacesOf(setup, midi).sort(near)[0]
        : placesOf(setup, midi).sort(near)[0]
  if (!found) {
    const other = edit.kind === 'natural' ? artificialPlacesOf(setup, midi)[0] : undefined
    return refused('noNode', {}, other ? { ...edit, kind: 'artificial' } : undefined)
  }
  return as({ ...plain, place: found, left: 0, attack: 'pluck' })
}

function graced(setup: Setup, note: TabNote, edit: Extract<TabEdit, { do: 'grace' }>): Sounded {
  const { graces: _, ...plain } = note
  if (edit.fret === undefined) return as({ ...plain, attack: note.graces ? 'pluck' : note.attack })
  const { string, fret } = note.place
  const last = lastFret(setup, string)
  if (edit.fret < 0 || edit.fret > last) return refused('beyondNeck', { last }, { ...edit, fret: last })
  if (edit.fret === fret || note.place.harmonic) return refused('sameString')
  const attack = edit.fret < fret ? 'hammer' : 'pull'
  const midi = openPitch(setup, string) + edit.fret
  const place = present(placesOf(setup, midi).find((p) => p.string === string))
  return as({ ...plain, attack, graces: [{ place, left: graceFinger(note, edit.fret), attack: 'pluck' }] })
}
