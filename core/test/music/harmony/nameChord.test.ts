import { Chord } from 'tonal'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  chordPitchClasses,
  chordText,
  mod12,
  nameChord,
  nameText,
  pitchClass,
  plainName,
  readChordSymbol,
} from '../../../src/music/index.ts'
import { guitarSetup } from '../../../src/instrument/index.ts'
import { nameShape } from '../../../src/chords/index.ts'
import { chord, frets } from '../../support/chords.ts'

const namesOf = (shape: string, capo = 0) =>
  nameShape(guitarSetup(capo), frets(shape)).map((n) => [chordText(n.shape), chordText(n.sounding)])

describe('naming places (trade facts: common practice, no source)', () => {
  it.each([
    ['x-3-2-0-1-0', 'C'],
    ['x-3-2-3-1-0', 'C7'],
    ['x-0-2-2-2-3', 'A7'],
    ['x-0-2-2-1-2', 'Am6'],
    ['x-0-2-0-1-0', 'Am7'],
    ['x-x-0-2-3-x', 'D5'],
    ['2-x-0-2-3-x', 'D/F#'],
    ['x-x-0-2-0-x', 'D6no3'],
    ['7-x-4-4-4-x', 'B'],
    ['x-2-4-4-4-x', 'B'],
    ['7-4-4-4-4-4', 'B69'],
    ['11-x-8-8-8-x', 'Eb'],
    ['3-x-3-4-3-x', 'G7'],
    ['3-x-2-3-2-x', 'Gdim7'],
    ['x-x-3-2-1-1', 'F'],
  ])('%s is %s', (shape, name) => {
    expect(namesOf(shape)[0]).toEqual([name, name])
  })

  it('the same notes: 7-x-4-4-4-x and x-2-4-4-4-x sound B F# B D# alike', () => {
    const setup = guitarSetup()
    const pitches = (shape: string) =>
      frets(shape)
        .flatMap((f, i) => (f === null ? [] : [setup.tuning[i]! + f]))
        .sort((a, b) => a - b)
    expect(pitches('7-x-4-4-4-x')).toEqual(pitches('x-2-4-4-4-x'))
    expect(pitches('11-x-8-8-8-x')).toEqual(pitches('x-6-8-8-8-x'))
  })

  it.each([
    ['x-x-0-2-3-2', 2, 'D', 'E'],
    ['x-x-0-2-3-2', 3, 'D', 'F'],
    ['x-x-0-2-3-2', 5, 'D', 'G'],
    ['3-2-0-0-0-3', 3, 'G', 'Bb'],
    ['0-2-2-0-0-0', 3, 'Em', 'Gm'],
    ['x-3-2-0-1-0', 3, 'C', 'Eb'],
  ])('%s with capo %i: %s shape sounds %s', (shape, capo, own, sounding) => {
    expect(namesOf(shape, capo)[0]).toEqual([own, sounding])
  })

  it('one note or none has no chord name', () => {
    expect(nameChord([40])).toEqual([])
    expect(nameChord([40, 52, 64])).toEqual([])
    expect(nameChord([])).toEqual([])
  })
})

describe('naming against tonal, both ways', () => {
  const QUALITIES = [
    '',
    'm',
    '7',
    'maj7',
    'm7',
    '6',
    'm6',
    'm7b5',
    'dim',
    'dim7',
    'aug',
    'sus4',
    'sus2',
    '7sus4',
    'add9',
    '9',
    'm9',
    'maj9',
    '7b9',
    '13',
  ]
  it('what we spell, tonal detects; what tonal calls it, we read as the same notes', () => {
    for (const root of ['C', 'Eb', 'F#', 'A'])
      for (const quality of QUALITIES) {
        const wanted = chord(root + quality)
        const tones = chordPitchClasses(wanted)
        const detected = Chord.detect(tones.map((pc) => nameText(plainName(pc, root === 'Eb'))))
        const understood = detected.flatMap((name) => {
          const reading = readChordSymbol(name.replace('maj7', 'maj7'))
          return reading.kind === 'chord' ? [[...chordPitchClasses(reading.chord)].sort().join()] : []
        })
        expect(understood, `${root}${quality}: ${detected.join(' ')}`).toContain([...tones].sort().join())
      }
  })

  it('our first name of a chord in root position is that chord, or one of exactly the same notes', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('C', 'D', 'Eb', 'F#', 'Ab', 'B'),
        fc.constantFrom(...QUALITIES),
        fc.array(fc.integer({ min: 0, max: 2 }), { minLength: 6, maxLength: 6 }),
        (root, quality, octaves) => {
          const wanted = chord(root + quality)
          const tones = chordPitchClasses(wanted)
          const bass = 36 + pitchClass(wanted.root)
          const pitches = [bass, ...tones.slice(1).map((pc, i) => 48 + pc + 12 * octaves[i]!)]
          const names = nameChord(pitches)
          expect(chordPitchClasses(names[0]!).sort()).toEqual([...tones].sort())
          expect(names.map((n) => `${pitchClass(n.root)}${n.quality}`)).toContain(
            `${pitchClass(wanted.root)}${wanted.quality}`,
          )
          // Every name offered holds every note heard.
          for (const name of names)
            for (const p of pitches) expect(chordPitchClasses(name)).toContain(mod12(p))
        },
      ),
    )
  })
})
