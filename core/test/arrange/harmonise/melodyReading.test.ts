import fc from 'fast-check'
import { Interval, Note } from 'tonal'
import { describe, expect, it } from 'vitest'
import { chordPitchClasses, degreeIn, intervalOf, midiOf, mod12, scaleOf } from '../../../src/music/index.ts'
import { melodyOf, timelineOf } from '../../../src/document/index.ts'
import { harmonyLine, readMelody } from '../../../src/arrange/index.ts'
import { chord } from '../../support/chords.ts'
import { CORPUS, tuneOfMusic } from '../../support/tunes.ts'

function readingsOf(music: string, key = 'C', transposed = 0) {
  const tune = tuneOfMusic(music, `M:4/4\nL:1/4\nK:${key}`)
  const timeline = timelineOf(tune.measures)
  const keys = tune.measures.map((m) => m.key)
  return readMelody(
    melodyOf(tune, timeline),
    transposed,
    harmonyLine(tune, timeline, 0, transposed),
    keys,
    timeline,
  )
}

/** The major scale's count of an interval as tonal names it: `3m` is b3, `5d` and `4A` are one key on the neck. */
const TONAL_DEGREES: Readonly<Record<string, string>> = {
  '1P': '1',
  '2m': 'b2',
  '2M': '2',
  '3m': 'b3',
  '3M': '3',
  '4P': '4',
  '4A': 'b5',
  '5d': 'b5',
  '5P': '5',
  '6m': 'b6',
  '6M': '6',
  '7m': 'b7',
  '7M': '7',
}

describe('degrees and intervals against tonal', () => {
  it('of every note over every triad', () => {
    const roots = ['C', 'D', 'Eb', 'E', 'F', 'G', 'Ab', 'A', 'Bb', 'B']
    const notes = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'Gb', 'G', 'Ab', 'A', 'Bb', 'B']
    for (const root of roots)
      for (const quality of ['', 'm'])
        for (const note of notes) {
          // Enharmonic spellings of tonal's (2A, 1A …) are folded to the plain ones.
          const semitones = mod12(Note.chroma(note) - Note.chroma(root))
          const name = Interval.fromSemitones(semitones)
          expect(degreeIn(chord(root + quality), Note.chroma(note)), `${note} over ${root}${quality}`).toBe(
            TONAL_DEGREES[name],
          )
        }
  })

  it('of double stops', () => {
    const qualities = { P: 'perfect', M: 'major', m: 'minor', A: 'augmented', d: 'diminished' } as const
    for (let semitones = 3; semitones <= 9; semitones++) {
      if (semitones === 6) continue
      const [, number, quality] = /^(\d)([PMmAd])$/.exec(Interval.fromSemitones(semitones))!
      expect(intervalOf(semitones)).toMatchObject({
        number: Number(number),
        quality: qualities[quality as 'P'],
      })
    }
  })
})

describe('what a note is in its chord (common practice, no source)', () => {
  const functions = (music: string) => readingsOf(music).map((r) => r.function)

  it('passing by step from note to note, neighbour by step away and back', () => {
    expect(functions('"C"EFGE|')).toEqual(['chord', 'passing', 'chord', 'chord'])
    expect(functions('"C"EDEG|')).toEqual(['chord', 'neighbour', 'chord', 'chord'])
    expect(functions('"C"GFED|"C"C4|')).toEqual(['chord', 'passing', 'chord', 'passing', 'chord'])
  })

  it('anticipates the next chord, or is kept from the one before', () => {
    expect(functions('"C"CEGd|"G"d4|')).toEqual(['chord', 'chord', 'chord', 'anticipation', 'chord'])
    expect(functions('"C"CEGc|"G"cBd2|')).toEqual([
      'chord',
      'chord',
      'chord',
      'chord',
      'suspension',
      'chord',
      'chord',
    ])
  })

  it('leapt to and left is none of these, and a rest parts notes', () => {
    expect(functions('"C"CFCE|')).toEqual(['chord', 'free', 'chord', 'chord'])
    expect(functions('"C"E z F G|')).toEqual(['chord', 'free', 'chord'])
  })

  it('a note outside the scale is marked, with the degree that it leads to', () => {
    const [flat] = readingsOf('"C"_E=EG2|')
    expect(flat).toMatchObject({ degree: 'b3', leadsTo: '3', outside: true, function: 'free' })
    expect(readingsOf('"C"EEG2|')[0]).toMatchObject({ degree: '3', outside: false, function: 'chord' })
    expect(readingsOf('"A7"=C^CE2|', 'A')[0]).toMatchObject({ degree: 'b3', leadsTo: '3', outside: true })
  })

  it('over the corpus: a chord tone exactly where the chord has the note, outside exactly where the scale has not', () => {
    for (const tune of CORPUS) {
      const timeline = timelineOf(tune.measures)
      const melody = melodyOf(tune, timeline)
      const harmony = harmonyLine(tune, timeline, 0, 0)
      const keys = tune.measures.map((m) => m.key)
      const readings = new Map(readMelody(melody, 0, harmony, keys, timeline).map((r) => [r.start, r]))
      for (const note of melody) {
        const segment = harmony.find((h) => h.start <= note.start && h.end > note.start)
        const reading = readings.get(note.start)
        expect(reading !== undefined).toBe(segment?.sounding !== undefined)
        if (!reading) continue
        const pc = mod12(midiOf(note.pitch))
        expect(reading.function === 'chord').toBe(chordPitchClasses(segment!.sounding!).includes(pc))
        expect(reading.outside).toBe(!scaleOf(keys[note.measure]!).includes(pc))
      }
    }
  })

  it('moves with the tune', () => {
    const music = '"C"EFG_B|"F"AGFE|"G7"GFDB,|"C"C4|'
    fc.assert(
      fc.property(fc.constantFrom(-12, 12, 24), (octaves) => {
        const shape = (t: number) => readingsOf(music, 'C', t).map(({ degree, function: f }) => [degree, f])
        expect(shape(octaves)).toEqual(shape(0))
      }),
    )
  })
})
