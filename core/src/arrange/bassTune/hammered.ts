import type { MelodyNote } from '../../document/form/timeline.ts'
import type { GraceNote } from '../../document/tab.ts'
import { openPitch, type Place, type Setup } from '../../instrument/setup.ts'
import { scaleOf, type Key } from '../../music/pitch/key.ts'
import { mod12 } from '../../music/pitch/pitch.ts'

/** The frets that are hammered on to: a step of the key over the open string. */
const LEAST_FRET = 1
const HIGHEST_FRET = 3

/** A note that is hammered on lasts so long (seconds) at least. No source. */
const LEAST_S = 0.25

/**
 * The open string before a note of the tune that is hammered on to; undefined where the open string is no tone of the key, the
 * tune just came up its string, or the note is too short.
 */
export function hammeredFrom(
  setup: Setup,
  key: Key,
  place: Place,
  before: { readonly note: MelodyNote; readonly place: Place | undefined } | undefined,
  note: MelodyNote,
  seconds: number,
): GraceNote | undefined {
  if (place.fret < LEAST_FRET || place.fret > HIGHEST_FRET || seconds < LEAST_S) return undefined
  if (!scaleOf(key).includes(mod12(openPitch(setup, place.string)))) return undefined
  const joined = before && before.note.start + before.note.duration >= note.start
  if (joined && before.place?.string === place.string && before.place.fret <= place.fret) return undefined
  return { place: { string: place.string, fret: 0 }, left: 0, attack: 'pluck', optional: true }
}
