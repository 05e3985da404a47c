import { durationOf } from '../../../document/durationOf.ts'
import type { Id } from '../../../document/ids.ts'
import { melodyNoteId } from '../../../document/noteIds.ts'
import type { Score } from '../../../document/score.ts'
import type { TabNote } from '../../../document/tab.ts'
import {
  TUNE_SCHEMA,
  type Duration,
  type Measure,
  type Tuplet,
  type TuneDoc,
  type TuneEvent,
} from '../../../document/tune.ts'
import type { Setup } from '../../../instrument/setup.ts'
import { spellInKey, type Key } from '../../../music/pitch/key.ts'
import { measureLength, type Metre } from '../../../music/time/metre.ts'
import { QUARTER, type Ticks } from '../../../music/time/ticks.ts'
import { writingAbc } from '../../../output/abc/writeAbc.ts'
import { present } from '../../../invariant.ts'
import { plainValues } from '../../../output/notation/plainValues.ts'
import type { Turns } from '../../../turns.ts'
import { givenScore } from '../../givenScore.ts'
import { likelyKey } from '../../likelyKey.ts'
import { likelyPlaces } from './likelyPlaces.ts'
import type { PlayedNote } from './playedMelody.ts'

/** What a draft is written as. */
export interface Draft {
  readonly id: Id
  readonly title: string
  readonly bpm: number
  readonly metre: Metre
  /** Absent: the one that the notes lie in best. */
  readonly key?: Key
  /** The instrument whose likely strings and frets are found; absent for a melody that was sung. */
  readonly setup?: Setup
}

const THIRD = QUARTER / 3

/**
 * Notes that were played in as a tune, its measures marked as heard, and as guessed where a note in them is doubtful; with a tab of the
 * likely places where an instrument is given that has all the notes.
 * @param played at least one note, on a grid of thirds or of halves of a quarter
 */
export function* draftTune(played: readonly PlayedNote[], draft: Draft): Turns<Score> {
  const { metre } = draft
  const key = likelyKey({ midis: played.map((n) => n.midi) }, draft.key, 0)
  const nominal = measureLength(metre)
  const end = Math.max(...played.map((n) => n.at + n.length))
  const measures = Array.from({ length: Math.max(1, Math.ceil(end / nominal)) }, (_, i): Measure => {
    const own = played.filter((n) => n.at < (i + 1) * nominal && n.at + n.length > i * nominal)
    return {
      id: `m${i + 1}`,
      nominal,
      length: nominal,
      metre,
      key,
      repeatStart: false,
      repeatEnd: 1,
      barline: (i + 1) * nominal >= end ? 'final' : 'single',
      endings: [],
      provenance: own.some((n) => n.isDoubtful) ? 'guessed' : 'heard',
    }
  })
  const writer = new EventWriter(nominal, key)
  let at = 0
  const firstOf = new Map<PlayedNote, Id>()
  for (const note of played) {
    writer.write(at, note.at)
    firstOf.set(note, present(writer.write(note.at, note.at + note.length, note.midi)))
    at = note.at + note.length
  }
  writer.write(at, measures.length * nominal)
  const bare: TuneDoc = {
    schema: TUNE_SCHEMA,
    id: draft.id,
    rev: 1,
    title: draft.title,
    measures,
    events: writer.events,
    chords: [],
    tuplets: writer.tuplets,
    sections: [],
    tempos: [{ pos: { measure: 'm1', tick: 0 }, bpm: draft.bpm, stated: true }],
  }
  const tune: TuneDoc = { ...bare, abc: { text: yield* writingAbc(bare), spans: [] } }
  const { setup } = draft
  if (!setup) return { tune }
  const places = yield* likelyPlaces(
    setup,
    played.map((n) => n.midi),
  )
  const notes = played.flatMap((n, i): TabNote[] => {
    const place = places[i]
    const sourceId = firstOf.get(n)
    if (!place || sourceId === undefined) return []
    return [
      {
        id: melodyNoteId(sourceId),
        sourceId,
        role: 'melody',
        notationVoice: 1,
        pos: { measure: `m${Math.floor(n.at / nominal) + 1}`, tick: n.at % nominal },
        dur: durationOf(n.length),
        place,
        left: 0,
        right: 'none',
        attack: 'pluck',
        optional: false,
      },
    ]
  })
  // A melody that lies below the strings is a tune without a tab.
  return notes.length < played.length ? { tune } : yield* givenScore({ tune, setup, notes, transposed: 0 })
}

/** Writes stretches of time as notes and rests: parted at bar lines, in thirds at the beats too, tied together again. */
class EventWriter {
  readonly events: TuneEvent[] = []
  readonly tuplets: Tuplet[] = []
  private openTuplet: { readonly beat: number; readonly id: Id } | undefined

  constructor(
    private readonly nominal: Ticks,
    private readonly key: Key,
  ) {}

  /** A note, or a rest where it has no pitch; the id of its first event, if it lasts at all. */
  write(from: Ticks, to: Ticks, midi?: number): Id | undefined {
    const pitch = midi === undefined ? undefined : spellInKey(midi, this.key)
    const first = this.events.length
    for (let at = from; at < to;) {
      const bar = (Math.floor(at / this.nominal) + 1) * this.nominal
      const end = pieceEnd(at, Math.min(to, bar))
      for (const dur of this.valuesOf(at, end)) {
        const id = `e${this.events.length + 1}`
        if (pitch && this.events.length > first) this.events.push({ ...this.events.pop()!, tieTo: id })
        this.events.push({
          id,
          voice: 0,
          pos: { measure: `m${Math.floor(at / this.nominal) + 1}`, tick: at % this.nominal },
          dur,
          chordTones: [],
          graces: [],
          ornaments: [],
          ...(pitch ? { pitch } : {}),
        })
        at += dur.ticks
      }
    }
    return this.events[first]?.id
  }

  private valuesOf(from: Ticks, to: Ticks): readonly Duration[] {
    if (!isThird(from) && !isThird(to)) return plainValues(to - from)
    const beat = Math.floor(from / QUARTER)
    if (this.openTuplet?.beat !== beat) {
      this.openTuplet = { beat, id: `t${this.tuplets.length + 1}` }
      this.tuplets.push({ id: this.openTuplet.id, actual: 3, normal: 2 })
    }
    const thirds = Math.round((to - from) / THIRD)
    return [{ ticks: to - from, base: thirds === 2 ? 4 : 8, dots: 0, tupletId: this.openTuplet.id }]
  }
}

/** True for a place in a beat that is parted in three. */
const isThird = (at: Ticks): boolean => at % QUARTER === THIRD || at % QUARTER === 2 * THIRD

/** Where a stretch inside a measure has to be parted next: what lies in a beat of three stands in that beat. */
function pieceEnd(from: Ticks, to: Ticks): Ticks {
  const beat = (Math.floor(from / QUARTER) + 1) * QUARTER
  if (isThird(from)) return Math.min(to, beat)
  return isThird(to) && to > beat ? Math.floor(to / QUARTER) * QUARTER : to
}
