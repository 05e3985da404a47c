import { mod12, pitchClass } from '../../music/pitch/pitch.ts'
import type { ChordReading } from '../../music/harmony/chordSymbol.ts'
import { keyOf, plainKeys, scaleOf, transposeKey, type Key } from '../../music/pitch/key.ts'

/** What its own chord adds to a key: at the beginning, at the end, elsewhere; and a dominant seventh. No source. */
const HOME = { first: 2, last: 1, between: 0.5, dominant: 0.7 }

/** How far the chords lie in a key: their notes in its scale, its own chord counted more, that at the beginning most. */
function fit(key: Key, chords: readonly ChordReading[]): number {
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

/**
 * The key in which the chords are written: the one that is stated, else the major or minor key that they lie in best.
 * @param stated as the text says it; behind a capo some say the key of the shapes, some what sounds: what the chords lie
 *   in is taken
 * @param capo semitones from the chords as written to what sounds
 */
export function keyOfChords(chords: readonly ChordReading[], stated: Key | undefined, capo: number): Key {
  if (stated) {
    const asShapes = transposeKey(stated, -capo)
    return capo > 0 && fit(asShapes, chords) > fit(stated, chords) + 1e-9 ? asShapes : stated
  }
  if (chords.length === 0) return keyOf({ step: 'C', alter: 0 }, 'major')
  // Of two spellings the one with fewer signs.
  return plainKeys(6).reduce((best, k) => {
    const more = fit(k, chords) - fit(best, chords)
    return more > 1e-9 || (more > -1e-9 && Math.abs(k.fifths) < Math.abs(best.fifths)) ? k : best
  })
}
