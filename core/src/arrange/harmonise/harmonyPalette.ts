import { spellInKey, type Key, type Mode } from '../../music/pitch/key.ts'
import { mod12, pitchClass, plainName, type NoteName } from '../../music/pitch/pitch.ts'
import { readChordSymbol, type ChordReading } from '../../music/harmony/chordSymbol.ts'
import { nameText } from '../../music/pitch/pitch.ts'

/** How far a harmony goes: three chords, the key's own family, or further with sevenths and borrowed dominants. */
export const MANNERS = ['plain', 'family', 'moving'] as const
export type Manner = (typeof MANNERS)[number]

/** A chord that a melody may be given, by its place in the key. */
export interface PaletteChord {
  readonly chord: ChordReading
  /** Semitones of the root above the tonic. */
  readonly degree: number
  /** What it costs to use it at all: the rarer, the more. */
  readonly price: number
  /** The degree that it must go to; absent for chords that stand by themselves. */
  readonly wants?: number
}

/** Degree in semitones, quality, price, degree that must follow. */
type Entry = readonly [number, string, number, number?]

/** Chords of each mode: the first three are the plain ones. Common practice of song and dance books, no source. */
const FAMILIES: Readonly<Record<Mode, readonly Entry[]>> = {
  major: [
    [0, '', 0],
    [7, '', 0.25],
    [5, '', 0.5],
    [9, 'm', 0.75],
    [2, 'm', 1],
    [4, 'm', 1.4],
  ],
  lydian: [
    [0, '', 0],
    [7, '', 0.25],
    [2, '', 0.5],
    [9, 'm', 0.9],
  ],
  mixolydian: [
    [0, '', 0],
    [10, '', 0.25],
    [5, '', 0.5],
    [7, 'm', 0.9],
    [2, 'm', 1.2],
  ],
  minor: [
    [0, 'm', 0],
    [7, '', 0.5],
    [5, 'm', 0.6],
    [10, '', 0.5],
    [3, '', 0.75],
    [8, '', 0.9],
  ],
  dorian: [
    [0, 'm', 0],
    [10, '', 0.25],
    [5, '', 0.5],
    [3, '', 0.75],
    [7, 'm', 1],
  ],
  phrygian: [
    [0, 'm', 0],
    [1, '', 0.25],
    [10, 'm', 0.5],
    [8, '', 0.75],
  ],
  locrian: [
    [0, 'dim', 0],
    [10, 'm', 0.25],
    [3, 'm', 0.5],
  ],
}

/** What a moving harmony adds: sevenths on the way home, and dominants of other degrees. */
const FURTHER: Readonly<Partial<Record<Mode, readonly Entry[]>>> = {
  major: [
    [7, '7', 0.1, 0],
    [2, 'm7', 0.8, 7],
    [2, '7', 2, 7],
    [9, '7', 2.4, 2],
    [0, '7', 2, 5],
    [4, '7', 2.4, 9],
    [10, '', 2.4],
  ],
  minor: [
    [7, '7', 0.4, 0],
    [2, 'm7b5', 1.1, 7],
    [0, '7', 1.5, 5],
    [10, '7', 1.2, 3],
  ],
  mixolydian: [[7, '', 1.4, 0]],
  dorian: [[7, '7', 1.4, 0]],
}

/** The chords that a manner may take in a key, the plainest first. */
export function paletteOf(key: Key, manner: Manner): PaletteChord[] {
  const family = FAMILIES[key.mode]
  const entries =
    manner === 'plain'
      ? family.slice(0, 3)
      : manner === 'family'
        ? family
        : [...family, ...(FURTHER[key.mode] ?? [])]
  return entries.flatMap(([degree, quality, price, wants]) => {
    const reading = readChordSymbol(nameText(nameOnDegree(key, degree)) + quality)
    if (reading.kind !== 'chord') return []
    return [{ chord: reading.chord, degree, price, ...(wants === undefined ? {} : { wants }) }]
  })
}

function nameOnDegree(key: Key, degree: number): NoteName {
  const pc = mod12(pitchClass(key.tonic) + degree)
  const { step, alter } = spellInKey(60 + pc, key)
  return Math.abs(alter) > 1 ? plainName(pc, key.fifths < 0) : { step, alter }
}
