import { Note, Scale } from 'tonal'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { mod12, pitchText, plainPitch, SCALES, scaleTones, type ScaleName } from '../../src/music/index.ts'
import {
  fretFromNut,
  GUITAR,
  guitarSetup,
  HARMONICS,
  harmonicsOf,
  INSTRUMENTS,
  namedTunings,
  pitchAt,
  readTuning,
  retuning,
  safeFrets,
  samePitchPlaces,
  scaleFrets,
  setupOf,
  tonesInPosition,
  type InstrumentKind,
} from '../../src/instrument/index.ts'
import { checkClaim, readClaim } from '../../src/chords/index.ts'

const tuningOf = (kind: InstrumentKind, text: string) => {
  const read = readTuning(kind, text)
  if ('fault' in read) throw new Error(JSON.stringify(read.fault))
  return read.tuning
}
const name = (n: { step: string; alter: number }) => n as Parameters<typeof scaleTones>[0]
const D = name({ step: 'D', alter: 0 })

describe('tunings (common practice, no source)', () => {
  it.each([
    ['standard', 'E2 A2 D3 G3 B3 E4'],
    ['dropD', 'D2 A2 D3 G3 B3 E4'],
    ['dadgad', 'D2 A2 D3 G3 A3 D4'],
    ['openD', 'D2 A2 D3 F#3 A3 D4'],
    ['openG', 'D2 G2 D3 G3 B3 D4'],
    ['openC', 'C2 G2 C3 G3 C4 E4'],
    ['doubleDropD', 'D2 A2 D3 G3 B3 D4'],
  ])('%s is %s', (id, notes) => {
    const named = namedTunings('guitar').find((n) => n.id === id)!
    expect([...named.tuning].reverse().map((m) => pitchText(plainPitch(m, false)))).toEqual(notes.split(' '))
    expect(tuningOf('guitar', notes)).toEqual(named.tuning)
    expect(tuningOf('guitar', notes.replaceAll(/\d/g, ''))).toEqual(named.tuning)
  })

  it('every typed tuning reads back, and mandolin courses are a fifth apart', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -8, max: 5 }), { minLength: 6, maxLength: 6 }), (moves) => {
        const tuning = INSTRUMENTS.guitar.usual.map((p, i) => p + moves[i]!)
        const text = [...tuning]
          .reverse()
          .map((m) => pitchText(plainPitch(m, true)))
          .join(' ')
        expect(tuningOf('guitar', text)).toEqual(tuning)
      }),
    )
    const mandolin = setupOf('mandolin')
    for (const string of [4, 3, 2])
      expect(pitchAt(mandolin, { string, fret: 7 })).toBe(mandolin.tuning[string - 2])
  })

  it('refuses missing strings, words and absurd pitches, and says which', () => {
    expect(readTuning('guitar', 'D A D G A')).toEqual({ fault: { kind: 'count', strings: 6, found: 5 } })
    expect(readTuning('guitar', 'D A D G A Q')).toEqual({ fault: { kind: 'notNote', string: 1, text: 'Q' } })
    expect(readTuning('guitar', 'E2 A2 D3 G3 B3 E5')).toMatchObject({
      fault: { kind: 'tooHigh', string: 1, semitones: 12 },
    })
    expect(readTuning('guitar', 'E1 A2 D3 G3 B3 E4')).toMatchObject({ fault: { kind: 'tooLow', string: 6 } })
    expect(readTuning('mandolin', '')).toMatchObject({ fault: { kind: 'count', strings: 4 } })
  })

  it('the way to a tuning and back is the same turns with the other sign; higher than usual asks for care', () => {
    const { usual } = INSTRUMENTS.guitar
    const openD = tuningOf('guitar', 'openD')
    const there = retuning('guitar', usual, openD)
    expect(there.map((x) => [x.string, x.semitones])).toEqual([
      [6, -2],
      [3, -1],
      [2, -2],
      [1, -2],
    ])
    expect(retuning('guitar', openD, usual).map((x) => -x.semitones)).toEqual(there.map((x) => x.semitones))
    expect(there.some((x) => x.careful)).toBe(false)
    expect(retuning('guitar', usual, tuningOf('guitar', 'wholeStepUp')).every((x) => x.careful)).toBe(true)
  })
})

describe('the four-fret frame at a capo (trade facts: geometry of L = 648 mm)', () => {
  it.each([
    [0, 97.3],
    [2, 86.7],
    [5, 72.9],
    [7, 64.9],
  ])('capo %i: %f mm', (capo, mm) => {
    expect(fretFromNut(GUITAR.scaleLength, capo + 4) - fretFromNut(GUITAR.scaleLength, capo + 1)).toBeCloseTo(
      mm,
      0,
    )
  })

  it('a partial capo raises its strings alone', () => {
    const setup = setupOf('guitar', undefined, { fret: 2, strings: [3, 4, 5] })
    expect([1, 2, 3, 4, 5, 6].map((string) => pitchAt(setup, { string, fret: 0 }))).toEqual([
      64, 59, 57, 52, 47, 40,
    ])
  })
})

describe('natural harmonics (physics of the string; handbook values)', () => {
  it.each([
    [12, 12, 0],
    [7, 19, 2],
    [19, 19, 2],
    [5, 24, 0],
    [24, 24, 0],
    [4, 28, -14],
    [9, 28, -14],
    [16, 28, -14],
  ])('fret %i sounds +%i semitones, %i cents off', (fret, semitones, cents) => {
    expect(HARMONICS.filter((h) => h.fret === fret)).toContainEqual(
      expect.objectContaining({ semitones, cents }),
    )
  })

  it('fret 7 of string 5 gives E4, of string 4 A4', () => {
    const at = (string: number) =>
      harmonicsOf(guitarSetup()).find((h) => h.string === string && h.fret === 7)!
    expect([at(5).midi, at(4).midi]).toEqual([64, 69])
  })

  it('all places of a pitch sound it', () => {
    const setup = setupOf('guitar', tuningOf('guitar', 'dadgad'), { fret: 2 })
    fc.assert(
      fc.property(fc.integer({ min: 40, max: 80 }), (midi) => {
        const places = samePitchPlaces(setup, midi)
        for (const p of [...places.open, ...places.fretted]) expect(pitchAt(setup, p)).toBe(midi)
        for (const h of places.harmonics) expect(h.midi).toBe(midi)
      }),
    )
    expect(samePitchPlaces(guitarSetup(), 64)).toMatchObject({ open: [{ string: 1, fret: 0 }] })
    expect(samePitchPlaces(guitarSetup(), 64).harmonics.map((h) => [h.string, h.fret])).toContainEqual([6, 5])
  })
})

describe('scales on the neck', () => {
  it('scales hold the notes that tonal gives them', () => {
    const theirs: Readonly<Record<ScaleName, string>> = {
      major: 'major',
      minor: 'minor',
      harmonicMinor: 'harmonic minor',
      melodicMinor: 'melodic minor',
      dorian: 'dorian',
      mixolydian: 'mixolydian',
      lydian: 'lydian',
      phrygian: 'phrygian',
      majorPentatonic: 'major pentatonic',
      minorPentatonic: 'minor pentatonic',
      blues: 'minor blues',
    }
    for (const scale of Object.keys(SCALES) as ScaleName[])
      expect(scaleTones(D, scale), scale).toEqual(
        Scale.get(`D ${theirs[scale]}`).notes.map((n) => Note.chroma(n)),
      )
  })

  it('D A D G A D in D major: all strings at 0 2 4 7 9 12; at 5 not string 3, at 11 not 5 and 2 (trade fact)', () => {
    const setup = setupOf('guitar', tuningOf('guitar', 'dadgad'))
    const tones = scaleTones(D, 'major')
    expect(safeFrets(setup, tones)).toEqual([0, 2, 4, 7, 9, 12])
    const frets = scaleFrets(setup, tones)
    expect(frets[5]!.outside).toEqual([3])
    expect(frets[11]!.outside).toEqual([2, 5])
    expect(safeFrets(setup, tones, 5)).toContain(5)
  })

  it('open D and open G straight across: I, IV, V at 0 or 12, 5, 7 (trade fact)', () => {
    for (const [id, root] of [
      ['openD', 2],
      ['openG', 7],
    ] as const) {
      const setup = setupOf('guitar', tuningOf('guitar', id))
      for (const [fret, up] of [
        [0, 0],
        [12, 0],
        [5, 5],
        [7, 7],
      ] as const) {
        const sounds = new Set([1, 2, 3, 4, 5, 6].map((string) => mod12(pitchAt(setup, { string, fret }))))
        expect([...sounds].sort()).toEqual([0, 4, 7].map((i) => mod12(root + up + i)).sort())
      }
    }
  })

  it('a position climbs through the scale without a gap and without a shift', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 9 }),
        fc.constantFrom('major', 'minor', 'dorian'),
        (position, scale) => {
          const setup = guitarSetup()
          const tones = scaleTones(name({ step: 'G', alter: 0 }), scale)
          const found = tonesInPosition(setup, tones, position)
          const pitches = found.map((p) => pitchAt(setup, p))
          pitches.forEach((p, i) => {
            expect(tones).toContain(mod12(p))
            if (i > 0) {
              // Next in the scale: nothing of the scale lies between.
              for (let between = pitches[i - 1]! + 1; between < p; between++)
                expect(tones).not.toContain(mod12(between))
            }
          })
          for (const p of found)
            expect(p.fret === 0 || (p.fret >= position && p.fret <= position + 4)).toBe(true)
        },
      ),
    )
  })
})

describe('what is said of a place', () => {
  const setup = guitarSetup()
  const verdict = (text: string, string: number, fret: number, at = setup) =>
    checkClaim(at, { string, fret }, readClaim(text)!)
  it.each([
    ['E', 1, 0, true],
    ['E4', 1, 0, true],
    ['E3', 1, 0, false],
    ['F#', 6, 2, true],
    ['Gb', 6, 2, true],
    ['F', 6, 2, false],
    ['3 of D', 6, 2, true],
    ['b3 of D', 6, 1, true],
    ['5 of D', 6, 2, false],
    ['D7', 2, 1, true],
    ['D7', 2, 2, false],
    ['G major', 1, 2, true],
    ['G major', 1, 1, false],
    ['A minor pentatonic', 3, 0, true],
  ])('"%s" of string %i fret %i: %s', (text, string, fret, holds) => {
    expect(verdict(text, string, fret).holds).toBe(holds)
  })

  it('follows the capo, and does not take nonsense for a claim', () => {
    expect(verdict('F#', 1, 0, guitarSetup(2)).holds).toBe(true)
    for (const nonsense of ['', 'hello', '9 of D', 'D nonsense']) expect(readClaim(nonsense)).toBeUndefined()
  })
})
