import { describe, expect, it } from 'vitest'
import { bassPitchClass, hertz, mod12, readChordSymbol } from '../../src/music/index.ts'
import {
  fretFromNut,
  guitarSetup,
  lastFret,
  openPitch,
  pitchAt,
  placesOf,
  reach,
  GUITAR,
  ADULT_SPANS,
} from '../../src/instrument/index.ts'
import { handFault } from '../../src/hand/index.ts'
import { heldShapesFor } from '../../src/chords/index.ts'

const chord = (text: string) => {
  const r = readChordSymbol(text)
  if (r.kind !== 'chord') throw new Error(text)
  return r.chord
}

describe('pitch', () => {
  it('A4 is 440 Hz and an octave doubles it (ISO 16:1975); MIDI 60 is middle C (MIDI 1.0)', () => {
    expect(hertz(69)).toBe(440)
    expect(hertz(81)).toBeCloseTo(880, 9)
    expect(hertz(60)).toBeCloseTo(261.6256, 3)
  })
})

describe('fret places', () => {
  it('follow equal temperament at 648 mm: handbook values for frets 1 to 12', () => {
    const table = [36.4, 70.7, 103.1, 133.7, 162.5, 189.8, 215.5, 239.8, 262.7, 284.3, 304.7, 324.0]
    table.forEach((mm, i) => expect(fretFromNut(648, i + 1)).toBeCloseTo(mm, 1))
  })

  it("follow the luthier's rule of 17.817: each fret takes that share of what is left", () => {
    let left = 648
    for (let fret = 1; fret <= 20; fret++) {
      left -= left / 17.817
      expect(fretFromNut(648, fret)).toBeCloseTo(648 - left, 1)
    }
  })

  it('the frame of four frets shrinks with the capo (common practice, no source): 97.3, 86.7, 72.9, 64.9 mm', () => {
    const frame = (capo: number) => fretFromNut(648, capo + 4) - fretFromNut(648, capo + 1)
    expect([0, 2, 5, 7].map((c) => Number(frame(c).toFixed(1)))).toEqual([97.3, 86.7, 72.9, 64.9])
  })

  it('a diagonal reach is longer than a straight one', () => {
    const straight = reach(GUITAR, { string: 3, fret: 1 }, { string: 3, fret: 4 })
    expect(reach(GUITAR, { string: 6, fret: 1 }, { string: 1, fret: 4 })).toBeGreaterThan(straight)
  })
})

describe('places', () => {
  it('B to C and E to F are one fret apart, all other neighbours two (common practice)', () => {
    expect(pitchAt(guitarSetup(), { string: 2, fret: 1 })).toBe(60)
    expect(placesOf(guitarSetup(), 64)).toEqual([
      { string: 1, fret: 0 },
      { string: 2, fret: 5 },
      { string: 3, fret: 9 },
      { string: 4, fret: 14 },
      { string: 5, fret: 19 },
    ])
  })

  it('a capo raises every string and shortens the neck', () => {
    const setup = guitarSetup(3)
    expect(openPitch(setup, 6)).toBe(43)
    expect(lastFret(setup, 1)).toBe(17)
  })
})

describe('chord shapes', () => {
  it('every shape that is offered is held by an adult hand and has its root or slash bass lowest (common practice)', () => {
    const setup = guitarSetup()
    let shapes = 0
    for (const root of ['C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B']) {
      for (const quality of ['', 'm', '7', 'm7', 'maj7', 'sus4', 'dim7', 'm7b5', '6', '9']) {
        const wanted = chord(root + quality)
        for (const frame of heldShapesFor(wanted, setup)) {
          shapes++
          expect(handFault(setup, ADULT_SPANS, frame.pressed), frame.name).toBeUndefined()
          const lowest = 6 - [...frame.frets].reverse().findIndex((f) => f !== null)
          expect(mod12(pitchAt(setup, { string: lowest, fret: frame.frets[lowest - 1]! })), frame.name).toBe(
            bassPitchClass(wanted),
          )
        }
      }
    }
    expect(shapes).toBeGreaterThan(150)
  })

  it('the bass strings of the common shapes (common practice)', () => {
    const bassString = (name: string) => {
      const frame = heldShapesFor(chord(name), guitarSetup())[0]!
      return 6 - [...frame.frets].reverse().findIndex((f) => f !== null)
    }
    expect(['E', 'Em', 'G'].map(bassString)).toEqual([6, 6, 6])
    expect(['A', 'Am', 'C', 'B7'].map(bassString)).toEqual([5, 5, 5, 5])
    expect(['D', 'Dm', 'F'].map(bassString)).toEqual([4, 4, 4])
  })

  it('offers only shapes that sound the chord in the tuning at hand', () => {
    const openG = { ...guitarSetup(), tuning: [62, 59, 55, 50, 43, 38] }
    for (const frame of heldShapesFor(chord('C'), openG)) {
      frame.frets.forEach((fret, i) => {
        if (fret !== null) expect([0, 4, 7]).toContain(mod12(pitchAt(openG, { string: i + 1, fret })))
      })
    }
  })
})
