import { durationOf } from '../../../document/durationOf.ts'
import type { Id } from '../../../document/ids.ts'
import { melodyNoteId } from '../../../document/noteIds.ts'
import type { Score } from '../../../document/score.ts'
import type { TabNote } from '../../../document/tab.ts'
import { TUNE_SCHEMA, type Measure, type TuneDoc } from '../../../document/tune.ts'
import type { Setup } from '../../../instrument/setup.ts'
import { spellInKey, type Key } from '../../../music/pitch/key.ts'
import { measureLength, type Metre } from '../../../music/time/metre.ts'
import { writingAbc } from '../../../output/abc/writeAbc.ts'
import { voiceInTime } from '../../../output/notation/voiceInTime.ts'
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
  const counts = { e: 0, t: 0 }
  const written = voiceInTime(
    measures,
    played.map((n) => ({ from: n.at, to: n.at + n.length, pitches: [spellInKey(n.midi, key)] })),
    0,
    (prefix) => `${prefix}${++counts[prefix]}`,
  )
  const bare: TuneDoc = {
    schema: TUNE_SCHEMA,
    id: draft.id,
    rev: 1,
    title: draft.title,
    measures,
    events: written.events,
    chords: [],
    tuplets: written.tuplets,
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
    const sourceId = written.firsts[i]
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
