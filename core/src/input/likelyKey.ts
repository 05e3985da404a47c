import { mod12, pitchClass, type Midi } from '../music/pitch/pitch.ts'
import type { ChordReading } from '../music/harmony/chordSymbol.ts'
import { keyOf, plainKeys, scaleOf, transposeKey, type Key } from '../music/pitch/key.ts'

/** What its own chord adds to a key: at the beginning, at the end, elsewhere; and a dominant seventh. No source. */
const HOME = { first: 2, last: 1, between: 0.5, dominant: 0.7 }

/** What its own note adds to a key: for each one, and for the last, in notes of the scale. No source. */
const HOME_NOTE = { each: 0.25, last: 1 }

/** What is known of a tune whose key is asked for. */
export interface KeyEvidence {
  /** The chords that are written, in order. */
  readonly chords?: readonly ChordReading[]
  /** The notes that are played, in order; they count as much as the chords. */
  readonly midis?: readonly Midi[]
}

/** How far the chords lie in a key: their notes in its scale, its own chord counted more, that at the beginning most. */
function chordsFit(key: Key, chords: readonly ChordReading[]): number {
  const scale = new Set(scaleOf(key))
  const tonic = pitchClass(key.tonic)
  const third = key.mode === 'minor' ? 3 : 4
  return chords.reduce((sum, c, i) => {
    const root = pitchClass(c.root)
    const notes = c.intervals.slice(0, 3).map((s) => mod12(root + s))
    const inside = notes.filter((n) => scale.has(n)).length / notes.length
    const home = root === tonic && c.intervals.includes(third)
    const weight = i === 0 ? HOME.first : i === chords.length - 1 ? HOME.last : HOME.between
    const dominant = root === mod12(tonic + 7) && c.intervals.includes(4) && c.intervals.includes(10)
    return sum + inside + (home ? weight : 0) + (dominant ? HOME.dominant : 0)
  }, 0)
}

/** The share of the notes that lie in a key's scale, its own note counted more, at the end most. */
function notesFit(key: Key, midis: readonly Midi[]): number {
  if (midis.length === 0) return 0
  const scale = new Set(scaleOf(key))
  const tonic = pitchClass(key.tonic)
  const inside = midis.filter((m) => scale.has(mod12(m))).length
  const home = midis.filter((m) => mod12(m) === tonic).length
  const ends = mod12(midis.at(-1)!) === tonic
  return (inside + home * HOME_NOTE.each + (ends ? HOME_NOTE.last : 0)) / midis.length
}

/**
 * The key in which chords and notes are written: the one that is stated, else the major or minor key that they lie in best.
 * @param stated as the text says it; behind a capo some say the key of the shapes, some what sounds: what the chords and notes
 *   lie in is taken
 * @param capo semitones from what the stated key would be as shapes to what sounds; negative from sound to shapes
 */
export function likelyKey(
  { chords = [], midis = [] }: KeyEvidence,
  stated: Key | undefined,
  capo: number,
): Key {
  const fit = (key: Key) => chordsFit(key, chords) + notesFit(key, midis) * Math.max(1, chords.length)
  if (stated) {
    const other = transposeKey(stated, capo)
    return capo !== 0 && fit(other) > fit(stated) + 1e-9 ? other : stated
  }
  if (chords.length === 0 && midis.length === 0) return keyOf({ step: 'C', alter: 0 }, 'major')
  // Of two spellings the one with fewer signs.
  return plainKeys(6).reduce((best, k) => {
    const more = fit(k) - fit(best)
    return more > 1e-9 || (more > -1e-9 && Math.abs(k.fifths) < Math.abs(best.fifths)) ? k : best
  })
}
