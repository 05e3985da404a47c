import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  chordIn,
  chordNames,
  chordPitchClasses,
  chordText,
  degreeIn,
  mod12,
  nameText,
  NOTE_NAMINGS,
  nearestChord,
  noteIn,
  pitchClass,
  readChordIn,
  readChordSymbol,
  spellInChord,
  toneNeeds,
} from '../../../src/music/index.ts'
import { chord } from '../../support/chords.ts'

const ROOTS = ['C', 'C#', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'Gb', 'G', 'Ab', 'A', 'Bb', 'B'] as const
const FAMILIES = ['', 'm', 'maj', '-', 'min', 'dim', '°', 'aug', '+', 'ø', '∆', 'M', 'mMaj', 'm(maj'] as const
const NUMBERS = ['', '6', '69', '7', '9', '11', '13', '5', '2'] as const
const CHANGES = [
  '',
  'sus4',
  'sus2',
  'b5',
  '#5',
  'b9',
  '#9',
  '#11',
  'b13',
  'add9',
  'no3',
  '(b9,#11)',
  'alt',
] as const

describe('chord symbols of every make', () => {
  it('what is understood is written in one spelling that reads back to the same tones', () => {
    let understood = 0
    fc.assert(
      fc.property(
        fc.constantFrom(...ROOTS),
        fc.constantFrom(...FAMILIES),
        fc.constantFrom(...NUMBERS),
        fc.constantFrom(...CHANGES),
        fc.constantFrom('', '/E', '/Bb'),
        (root, family, number, change, bass) => {
          const reading = readChordSymbol(root + family + number + change + bass)
          if (reading.kind !== 'chord') return
          understood++
          const again = chord(chordText(reading.chord))
          expect(again).toEqual(reading.chord)
        },
      ),
      { numRuns: 2000 },
    )
    expect(understood).toBeGreaterThan(1200)
  })

  it.each([
    ['C7alt', [0, 4, 10]],
    ['C7no3', [0, 7, 10]],
    ['C(no3)', [0, 7]],
    ['C7(b9,#11)', [0, 4, 7, 10, 1, 6]],
    ['C13b9', [0, 4, 7, 10, 1, 9]],
    ['Cm(maj9)', [0, 3, 7, 11, 2]],
    ['C7sus4b9', [0, 5, 7, 10, 1]],
    ['Cdim7', [0, 3, 6, 9]],
    ['Cdom7', [0, 4, 7, 10]],
    ['C-5', [0, 4, 6]],
  ])('%s holds the tones that its symbol says (common practice, no source)', (text, wanted) => {
    expect(chordPitchClasses(chord(text))).toEqual(expect.arrayContaining(wanted))
  })

  it('names the nearest that is understood, and nothing where there is none', () => {
    expect(nearestChord('Cm7foo')).toBe('Cm7')
    expect(nearestChord('F#mn7b5')).toBe('F#m7b5')
    expect(nearestChord('hm7')).toBe('Bm7')
    expect(nearestChord('???')).toBeUndefined()
    fc.assert(
      fc.property(fc.string({ maxLength: 12 }), (text) => {
        const near = nearestChord(text)
        if (near !== undefined) expect(readChordSymbol(near).kind).toBe('chord')
      }),
    )
  })
})

describe('tones of a chord', () => {
  it('a shape may leave out the fifth of a seventh chord, never its third or seventh', () => {
    expect(toneNeeds(chord('C7'))).toMatchObject({ essential: [[0], [4], [10]], optional: [7] })
    expect(toneNeeds(chord('C')).optional).toEqual([])
    expect(toneNeeds(chord('C13')).essential).toEqual([[4], [10], [21]])
  })

  it.each([
    ['Cm7', ['C', 'Eb', 'G', 'Bb']],
    ['F#m7b5', ['F#', 'A', 'C', 'E']],
    ['Bdim7', ['B', 'D', 'F', 'Ab']],
    ['E7#9', ['E', 'G#', 'B', 'D', 'F##']],
    ['D/F#', ['D', 'F#', 'A']],
  ])('%s is spelled by its degrees (rules of spelling, no source)', (text, names) => {
    expect(chordNames(chord(text)).map(nameText)).toEqual(names)
  })

  it('every tone has a degree and a spelling that is that tone', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...ROOTS),
        fc.constantFrom('m7', '13', 'maj9', 'dim7', '7#9', 'sus4'),
        (r, q) => {
          const c = chord(r + q)
          for (const pc of chordPitchClasses(c)) {
            expect(pitchClass(spellInChord(c, pc))).toBe(pc)
            expect(degreeIn(c, pc)).toMatch(/^[b#]{0,2}(1|2|3|4|5|6|7|9|11|13)$/)
          }
        },
      ),
    )
  })
})

describe('names of notes', () => {
  it('the German way has H for B natural and B for B flat (common practice, no source)', () => {
    const german = (step: 'B' | 'F' | 'E' | 'A', alter: number) => noteIn('german', { step, alter })
    expect([german('B', 0), german('B', -1), german('F', 1), german('E', -1), german('A', -1)]).toEqual([
      'H',
      'B',
      'Fis',
      'Es',
      'As',
    ])
    expect(noteIn('syllables', { step: 'G', alter: 1 })).toBe('Sol♯')
  })

  it('every chord reads back in the naming that it was written in', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...NOTE_NAMINGS),
        fc.constantFrom(...ROOTS),
        fc.constantFrom('', 'm', '7', 'maj7', 'm7b5', '7b9', 'sus4', 'dim7', '69', 'add9'),
        fc.constantFrom(undefined, ...ROOTS),
        (naming, root, quality, bass) => {
          const wanted = chord(root + quality + (bass ? `/${bass}` : ''))
          const back = readChordIn(naming, chordIn(naming, wanted))
          expect(back).toEqual({ kind: 'chord', chord: wanted })
        },
      ),
      { numRuns: 600 },
    )
    expect(mod12(pitchClass(chord('B7').root))).toBe(11)
  })
})
