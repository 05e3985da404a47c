import { bassString } from '../accompany/struckStrings.ts'
import { fingeringsOf } from '../../hand/grip/fingering.ts'
import { pitchAt, type Place, type Setup } from '../../instrument/setup.ts'
import type { PitchClass } from '../../music/pitch/pitch.ts'
import { mod12 } from '../../music/pitch/pitch.ts'

/** A shape of a chord: fret by string, string 1 first. */
export interface Frets {
  readonly frets: readonly (number | null)[]
}

/** Fewer strings than this are no brush. */
export const LEAST_SWEPT = 2

/** The lowest string that is brushed where the tune rests. */
const FIRST_BASS_STRING = 5

/** A root on this string or a lower one has no other below it. */
const LOWEST_OVER = 4

/** A semitone, from below or from above. */
const BITING = [1, 11]

/**
 * The highest strings of a shape above a note that sounds on, as many as the hand can hold with it. What lies a semitone from
 * the note would bite: it is left out.
 * @param note the note; undefined where nothing sounds
 * @param below what else is held
 */
export function above(
  setup: Setup,
  { frets }: Frets,
  note: Place | undefined,
  most: number,
  below: readonly Place[] = [],
): readonly Place[] {
  const places: Place[] = []
  for (let string = 1; string < (note?.string ?? FIRST_BASS_STRING) && places.length < most; string++) {
    const fret = frets[string - 1]
    if (fret === null || fret === undefined) break
    const place = { string, fret }
    const bites = note && BITING.includes(mod12(pitchAt(setup, place) - pitchAt(setup, note)))
    if (bites || !isHeld(setup, [...places, place, ...below, ...(note ? [note] : [])])) {
      // A stroke passes over no string in between.
      if (places.length >= LEAST_SWEPT) break
      places.length = 0
      continue
    }
    places.push(place)
  }
  return places
}

/** The root of a shape below what sounds; none where the tune has its string, or no hand could hold both. */
export function rootUnder(setup: Setup, { frets }: Frets, note: Place | undefined): Place | undefined {
  const string = bassString({ frets })
  const place = { string, fret: frets[string - 1]! }
  if (!note) return place
  const below = string !== note.string && pitchAt(setup, place) < pitchAt(setup, note)
  return below && isHeld(setup, [place, note]) ? place : undefined
}

/**
 * The chord around the note on which the music comes to rest: its root below, where the note is not the root itself, and what lies above.
 * @param own the shape of the chord, and others of it
 * @param root pitch class
 * @param most strings besides the note
 */
export function chordAround(
  setup: Setup,
  [own, ...others]: readonly [Frets, ...Frets[]],
  note: Place,
  root: PitchClass,
  most: number,
): readonly Place[] {
  const having = [own, ...others].filter(({ frets }) => frets[note.string - 1] === note.fret)
  if (mod12(pitchAt(setup, note)) === root && note.string >= LOWEST_OVER)
    return above(setup, having[0] ?? own, note, most)
  for (const shape of having) {
    const low = rootUnder(setup, shape, note)
    if (!low || mod12(pitchAt(setup, low)) !== root) continue
    const rest = between(setup, shape, low, note, above(setup, shape, note, most - 1, [low]), most - 1)
    if (rest.length > 0) return [low, ...rest]
  }
  return above(setup, own, note, most)
}

/** What lies above a note, with strings between it and the root where there are too few. */
function between(
  setup: Setup,
  { frets }: Frets,
  root: Place,
  note: Place,
  over: readonly Place[],
  most: number,
): readonly Place[] {
  const places = [...over]
  for (let string = note.string + 1; string < root.string && places.length < most; string++) {
    const fret = frets[string - 1]
    if (fret === null || fret === undefined) continue
    const place = { string, fret }
    if (isHeld(setup, [root, note, ...places, place])) places.push(place)
  }
  return places
}

function isHeld(setup: Setup, places: readonly Place[]): boolean {
  const frets: (number | null)[] = Array.from({ length: setup.instrument.strings }, () => null)
  for (const p of places) frets[p.string - 1] = p.fret
  return places.every((p) => p.fret === 0) || fingeringsOf(setup, frets, setup.player, 1).length > 0
}
