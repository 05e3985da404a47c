import { transposeChord, type ChordReading } from '../music/harmony/chordSymbol.ts'
import { nameChord } from '../music/harmony/nameChord.ts'
import { pitchAt, type Setup } from '../instrument/setup.ts'
import type { Midi } from '../music/pitch/pitch.ts'

/** A chord by the name of the shape that the hand holds and by the name of what sounds. */
export interface ShapeName {
  readonly shape: ChordReading
  readonly sounding: ChordReading
}

/** What a shape sounds, from the lowest string. `frets` are by string, string 1 first, counted from the capo. */
export function soundingPitches(setup: Setup, frets: readonly (number | null)[]): Midi[] {
  return frets
    .flatMap((fret, i) => (fret === null ? [] : [pitchAt(setup, { string: i + 1, fret })]))
    .reverse()
}

/** The capo's fret when it lies across all strings; 0 for none; undefined for a partial one. */
export function fullCapo(setup: Setup): number | undefined {
  const first = setup.capo[0]!
  return setup.capo.every((c) => c === first) ? first : undefined
}

/**
 * Names a shape, plainest first. With a full capo the shape's own name is as many semitones lower; a partial capo
 * leaves the sounding name alone, for no open string keeps its usual place under the hand.
 * @example nameShape(guitarSetup(3), [3, 3, 0, 0, 2, 3])[0] // shape G, sounding A#/Bb
 */
export function nameShape(setup: Setup, frets: readonly (number | null)[], flats?: boolean): ShapeName[] {
  const capo = fullCapo(setup) ?? 0
  const pitches = soundingPitches(setup, frets)
  const shapes = nameChord(
    pitches.map((p) => p - capo),
    flats,
  )
  const sounding = capo === 0 ? shapes : nameChord(pitches, flats)
  return shapes.map((shape, i) => ({
    shape,
    sounding: sounding[i] ?? transposeChord(shape, capo, true),
  }))
}
