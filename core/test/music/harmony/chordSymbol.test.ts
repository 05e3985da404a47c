import { Chord, Key, Note } from 'tonal'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  bassPitchClass,
  chordPitchClasses,
  chordText,
  keyOf,
  MODES,
  nameText,
  pitchClass,
  plainName,
  readChordSymbol,
  scaleOf,
  transposeChord,
  transposeKey,
} from '../../../src/music/index.ts'

const read = (text: string) => {
  const reading = readChordSymbol(text)
  if (reading.kind !== 'chord') throw new Error(`${text} is ${reading.kind}`)
  return reading.chord
}

/** Qualities as lead sheets write them, and the name by which tonal knows the same chord. */
const QUALITIES: readonly (readonly [string, string])[] = [
  ['', ''],
  ['m', 'm'],
  ['5', '5'],
  ['6', '6'],
  ['69', '69'],
  ['m6', 'm6'],
  ['7', '7'],
  ['maj7', 'maj7'],
  ['m7', 'm7'],
  ['mMaj7', 'mMaj7'],
  ['m7b5', 'm7b5'],
  ['dim', 'dim'],
  ['dim7', 'dim7'],
  ['aug', 'aug'],
  ['sus2', 'sus2'],
  ['sus4', 'sus4'],
  ['7sus4', '7sus4'],
  ['add9', 'add9'],
  ['madd9', 'madd9'],
  ['9', '9'],
  ['maj9', 'maj9'],
  ['m9', 'm9'],
  ['7b9', '7b9'],
  ['7#9', '7#9'],
  ['11', '11'],
  ['m11', 'm11'],
  ['13', '13'],
  ['m13', 'm13'],
  ['maj13', 'maj13'],
  ['7#11', '7#11'],
  ['aug7', '7#5'],
  ['7b5', '7b5'],
  ['maj7#11', 'maj7#11'],
]
const ROOTS = ['C', 'C#', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'Gb', 'G', 'Ab', 'A', 'Bb', 'B'] as const

describe('chord symbols against tonal', () => {
  it.each(QUALITIES)('%s has the tones that tonal gives to %s, on every root', (own, theirs) => {
    for (const root of ROOTS) {
      const ours = chordPitchClasses(read(root + own)).sort((a, b) => a - b)
      const expected = Chord.getChord(theirs, root)
        .notes.map((n) => Note.chroma(n))
        .sort((a, b) => a - b)
      expect(expected.length).toBeGreaterThan(0)
      expect(ours).toEqual([...new Set(expected)])
    }
  })

  it.each([
    ['Cm7', 'C-7', 'Cmin7'],
    ['Cmaj7', 'C∆', 'CM7', 'Cma7'],
    ['Cm7b5', 'Cø', 'C-7b5', 'Cm7♭5'],
    ['C', 'Cmaj', 'CM'],
    ['Cm', 'Cmin', 'C-'],
    ['Cdim', 'C°', 'Co'],
    ['Cdim7', 'C°7', 'Co7'],
    ['Caug', 'C+'],
    ['Csus4', 'Csus'],
    ['C69', 'C6/9'],
  ])('%s has other spellings', (...spellings) => {
    const [first, ...others] = spellings.map((s) => chordText(read(s)))
    expect(new Set(others)).toEqual(new Set([first]))
  })

  it('reads slash basses, signs of both kinds, and silence', () => {
    expect(bassPitchClass(read('D/F#'))).toBe(6)
    expect(chordText(read('B♭m7/A♭'))).toBe('Bbm7/Ab')
    expect(chordPitchClasses(read('C/D'))).toEqual([0, 4, 7, 2])
    expect(readChordSymbol('N.C.').kind).toBe('noChord')
    for (const nonsense of ['', 'H7', 'Cfoo', 'Hwat', 'c', '%', 'C/'])
      expect(readChordSymbol(nonsense).kind).toBe('unknown')
  })

  it('transposing by n and back keeps the pitch classes; what is written reads back', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...ROOTS),
        fc.constantFrom(...QUALITIES),
        fc.integer({ min: -11, max: 11 }),
        fc.boolean(),
        (root, [quality], n, flats) => {
          const chord = read(root + quality)
          const there = transposeChord(chord, n, flats)
          expect(chordPitchClasses(transposeChord(there, -n, flats))).toEqual(chordPitchClasses(chord))
          expect(read(chordText(there))).toEqual(there)
          expect((pitchClass(there.root) - pitchClass(chord.root) - n) % 12).toBeCloseTo(0)
        },
      ),
    )
  })
})

describe('keys against tonal', () => {
  it('major and minor signatures and scales', () => {
    for (const tonic of ['C', 'G', 'D', 'A', 'E', 'B', 'F', 'Bb', 'Eb', 'Ab'] as const) {
      const name = { step: tonic[0] as 'C', alter: tonic.length > 1 ? -1 : 0 }
      expect(keyOf(name, 'major').fifths).toBe(Key.majorKey(tonic).alteration)
      expect(keyOf(name, 'minor').fifths).toBe(Key.minorKey(tonic).alteration)
      expect(scaleOf(keyOf(name, 'major'))).toEqual(Key.majorKey(tonic).scale.map((n) => Note.chroma(n)))
      expect(scaleOf(keyOf(name, 'minor'))).toEqual(
        Key.minorKey(tonic).natural.scale.map((n) => Note.chroma(n)),
      )
    }
  })

  it('a transposed key has at most seven signs and the right tonic', () => {
    for (const mode of MODES) {
      for (let n = -11; n <= 11; n++) {
        const key = transposeKey(keyOf({ step: 'D', alter: 0 }, mode), n)
        expect(Math.abs(key.fifths)).toBeLessThanOrEqual(7)
        expect(pitchClass(key.tonic)).toBe((2 + n + 24) % 12)
      }
    }
  })

  it('plain names', () => {
    expect([1, 3, 6, 8, 10].map((pc) => nameText(plainName(pc, true)))).toEqual([
      'Db',
      'Eb',
      'Gb',
      'Ab',
      'Bb',
    ])
  })
})
