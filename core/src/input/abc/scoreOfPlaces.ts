import { message, type Message } from '../../messages/message.ts'
import { durationOf } from '../../document/durationOf.ts'
import { measureNumbers } from '../../document/form/measureNumbers.ts'
import { melodyOf, timelineOf } from '../../document/form/timeline.ts'
import type { Id } from '../../document/ids.ts'
import { handNoteId, melodyNoteId } from '../../document/noteIds.ts'
import type { School } from '../../document/school.ts'
import type { Score } from '../../document/score.ts'
import { BACKING_VOICE, type TabNote } from '../../document/tab.ts'
import type { TuneDoc, TuneEvent } from '../../document/tune.ts'

import { lastFret, pitchAt, withShift, type Setup } from '../../instrument/setup.ts'
import { midiOf } from '../../music/pitch/pitch.ts'
import { finish } from '../../turns.ts'
import { givenScore } from '../givenScore.ts'
import type { GivenPlace } from './placeMarks.ts'

/** Places over a tune that cannot be played as they stand. */
export class PlacesError extends Error {
  override readonly name = 'PlacesError'
  constructor(readonly says: Message<'reading'>) {
    super(`${says.code} ${JSON.stringify(says.values)}`)
  }
}

/**
 * A tune whose notes have their places, as a tab with both hands found.
 * @param places where the notes of each event lie, from the lowest string on
 * @throws PlacesError where a note has no place, a place is not on the neck, or it sounds another pitch than is written
 */
export function scoreOfPlaces(
  tune: TuneDoc,
  places: ReadonlyMap<Id, readonly GivenPlace[]>,
  setup: Setup,
  school?: School,
): Required<Score> {
  const numbers = measureNumbers(tune.measures)
  const indexOf = new Map(tune.measures.map((m, i) => [m.id, i]))
  const lengths = new Map(melodyOf(tune, timelineOf(tune.measures)).map((n) => [n.sourceId, n.duration]))
  const tied = new Set(tune.events.flatMap((e) => e.tieTo ?? []))
  let transposed: number | undefined
  const notes = tune.events.flatMap((e): TabNote[] => {
    if (!e.pitch || tied.has(e.id)) return []
    const measure = numbers[indexOf.get(e.pos.measure) ?? 0]!
    const written = [...e.chordTones, e.pitch].map(midiOf)
    const own = (places.get(e.id) ?? [])
      .map((place) => {
        const { string, fret } = place
        if (string > setup.instrument.strings || fret > lastFret(setup, string))
          throw new PlacesError(message('reading.placeOffNeck', { measure, string, fret }))
        return { place, midi: pitchAt(setup, { string, fret }) }
      })
      .sort((a, b) => a.midi - b.midi)
    if (own.length !== written.length)
      throw new PlacesError(
        message('reading.placesMissing', { measure, notes: written.length, places: own.length }),
      )
    own.forEach(({ midi, place: { string, fret } }, i) => {
      transposed ??= midi - written[i]!
      if (midi - written[i]! !== transposed)
        throw new PlacesError(message('reading.placeOtherPitch', { measure, string, fret }))
    })
    return own.map(({ place }, i) => noteOf(e, place, i === own.length - 1, setup, lengths.get(e.id)))
  })
  if (notes.length === 0) throw new PlacesError(message('reading.noFrets'))
  const moved = transposed ?? 0
  const octave = Math.round(moved / 12)
  const sounding = withShift(setup, moved - 12 * octave, octave)
  return finish(givenScore({ tune, setup: sounding, notes, transposed: moved, school }))
}

function noteOf(
  e: TuneEvent,
  { string, fret, left }: GivenPlace,
  top: boolean,
  { instrument }: Setup,
  lasts: number | undefined,
): TabNote {
  const plain = {
    pos: e.pos,
    place: { string, fret },
    left: fret > 0 ? (left ?? (0 as const)) : (0 as const),
    right: 'none' as const,
    attack: 'pluck' as const,
    optional: false,
  }
  if (e.voice === 0 && top)
    return {
      ...plain,
      id: melodyNoteId(e.id),
      sourceId: e.id,
      role: 'melody',
      notationVoice: 1,
      dur: durationOf(lasts ?? e.dur.ticks),
    }
  return {
    ...plain,
    id: handNoteId(e.pos, string),
    origin: 'hand',
    role: string > Math.ceil(instrument.strings / 2) ? 'bass' : 'harmony',
    notationVoice: BACKING_VOICE - 1,
    dur: e.dur,
  }
}
