import fc from 'fast-check'
import { Interval, Key, Note, Scale } from 'tonal'
import { describe, expect, it } from 'vitest'
import { intervalOf } from '../../../src/music/pitch/interval.ts'
import {
  keyIn,
  keyOf,
  MODES,
  scaleOf,
  signatureAlter,
  spellInKey,
  transposeKey,
  withOctave,
} from '../../../src/music/pitch/key.ts'
import { NOTE_NAMINGS, noteIn, pitchIn, toLetters } from '../../../src/music/pitch/noteNaming.ts'
import {
  hertz,
  midiOf,
  mod12,
  nameText,
  pitchClass,
  pitchText,
  plainName,
  plainPitch,
  readPitch,
  STEPS,
  type NoteName,
  type Pitch,
} from '../../../src/music/pitch/pitch.ts'
import { degreeAbove, scaleTones } from '../../../src/music/pitch/scale.ts'

const names = fc.record({ step: fc.constantFrom(...STEPS), alter: fc.integer({ min: -2, max: 2 }) })
const pitches: fc.Arbitrary<Pitch> = fc
  .record({ name: names, octave: fc.integer({ min: 0, max: 8 }) })
  .map(({ name, octave }) => ({ ...name, octave }))
const midis = fc.integer({ min: 12, max: 108 })

/** Tonics of the fifteen major signatures, the usual circle of fifths. */
const TONICS: readonly NoteName[] = [
  ...['C', 'G', 'D', 'A', 'E', 'B', 'F'].map((step) => ({ step: step as 'C', alter: 0 })),
  ...['F', 'C'].map((step) => ({ step: step as 'C', alter: 1 })),
  ...['B', 'E', 'A', 'D', 'G', 'C'].map((step) => ({ step: step as 'C', alter: -1 })),
]

describe('a pitch, against tonal', () => {
  it('has the MIDI number, pitch class and name that tonal gives it', () => {
    fc.assert(
      fc.property(pitches, (pitch) => {
        const theirs = Note.get(pitchText(pitch))
        expect(pitchClass(pitch)).toBe(theirs.chroma)
        if (theirs.midi !== null) expect(midiOf(pitch)).toBe(theirs.midi)
        expect(nameText(pitch)).toBe(theirs.pc)
      }),
    )
  })

  it('is read from its text, in letters and with printed signs', () => {
    fc.assert(
      fc.property(pitches, (pitch) => {
        expect(readPitch(pitchText(pitch))).toEqual(pitch)
        expect(readPitch(pitchIn('letters', pitch))).toEqual(pitch)
        expect(readPitch(` ${pitchText(pitch).toLowerCase()} `)).toEqual(pitch)
      }),
    )
  })

  it.each(['', 'H4', 'C', 'C44', '#4', 'Cb#4', 'do4', '4C'])('“%s” is no pitch', (text) => {
    expect(readPitch(text)).toBeUndefined()
  })

  it('sounds at the frequency that tonal gives it; an octave doubles it (A4 = 440 Hz, ISO 16:1975)', () => {
    expect(hertz(69)).toBe(440)
    fc.assert(
      fc.property(midis, (midi) => {
        expect(hertz(midi)).toBeCloseTo(Note.freq(Note.fromMidi(midi))!, 6)
        expect(hertz(midi + 12) / hertz(midi)).toBeCloseTo(2, 10)
      }),
    )
  })

  it('plain names are those of tonal, by sharps or by flats', () => {
    fc.assert(
      fc.property(midis, (midi) => {
        expect(pitchText(plainPitch(midi, false))).toBe(Note.fromMidiSharps(midi))
        expect(pitchText(plainPitch(midi, true))).toBe(Note.fromMidi(midi))
        expect(midiOf(plainPitch(midi, true))).toBe(midi)
      }),
    )
  })

  it('a name takes the octave in which it sounds so: B sharp and C flat cross it', () => {
    expect(withOctave(60, { step: 'B', alter: 1 })).toEqual({ step: 'B', alter: 1, octave: 3 })
    expect(withOctave(59, { step: 'C', alter: -1 })).toEqual({ step: 'C', alter: -1, octave: 4 })
    fc.assert(
      fc.property(midis, names, (midi, name) => {
        fc.pre(pitchClass(name) === mod12(midi))
        expect(midiOf(withOctave(midi, name))).toBe(midi)
      }),
    )
  })
})

describe('intervals, against tonal', () => {
  it('are named as tonal names them within an octave', () => {
    for (let semitones = 0; semitones <= 12; semitones++) {
      const { number, quality } = intervalOf(semitones)
      const theirs = Interval.get(Interval.fromSemitones(semitones))
      if (quality === 'tritone') expect(semitones).toBe(6)
      else {
        expect(number).toBe(Math.abs(theirs.num))
        expect({ perfect: 'P', major: 'M', minor: 'm' }[quality]).toBe(theirs.q)
      }
    }
  })

  it('are the same up and down, and an octave more is named as within it, the octave as such', () => {
    fc.assert(
      fc.property(fc.integer({ min: -48, max: 48 }), (n) => {
        expect(intervalOf(n)).toEqual(intervalOf(-n))
        if (n !== 0 && n % 12 === 0) expect(intervalOf(n)).toEqual({ number: 8, quality: 'perfect' })
        else expect(intervalOf(n)).toEqual(intervalOf(Math.abs(n) % 12))
      }),
    )
  })
})

describe('keys, against tonal', () => {
  it.each(TONICS.map((t) => [nameText(t), t] as const))('the signature of %s major', (name, tonic) => {
    const key = keyOf(tonic, 'major')
    const theirs = Key.majorKey(name)
    expect(key.fifths).toBe(theirs.alteration)
    for (const step of STEPS) {
      const alter = signatureAlter(key.fifths, step)
      expect(theirs.scale).toContain(nameText({ step, alter }))
    }
  })

  it.each(MODES)('the scale of every tonic in %s', (mode) => {
    for (const tonic of TONICS) {
      const key = keyOf(tonic, mode)
      const theirs = Scale.get(`${nameText(tonic)} ${mode === 'minor' ? 'aeolian' : mode}`).notes
      expect(scaleOf(key)).toEqual(theirs.map((n) => Note.chroma(n)))
      // Spelled by the signature, where it has seven signs at most.
      if (Math.abs(key.fifths) <= 7)
        for (const [i, pc] of scaleOf(key).entries()) {
          const spelled = spellInKey(60 + pc, key)
          expect(nameText(spelled)).toBe(theirs[i])
          expect(midiOf(spelled)).toBe(60 + pc)
        }
    }
  })

  it('moved by semitones keep their mode and their scale, with six signs at most', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...TONICS),
        fc.constantFrom(...MODES),
        fc.integer({ min: -24, max: 24 }),
        (tonic, mode, n) => {
          const key = keyOf(tonic, mode)
          const moved = transposeKey(key, n)
          expect(moved.mode).toBe(mode)
          expect(scaleOf(moved)).toEqual(scaleOf(key).map((pc) => mod12(pc + n)))
          if (mod12(n) !== 0) expect(Math.abs(moved.fifths)).toBeLessThanOrEqual(6)
        },
      ),
    )
  })

  it('whatever is spelled sounds as it did', () => {
    fc.assert(
      fc.property(midis, fc.constantFrom(...TONICS), fc.constantFrom(...MODES), (midi, tonic, mode) => {
        expect(midiOf(spellInKey(midi, keyOf(tonic, mode)))).toBe(midi)
      }),
    )
  })
})

describe('degrees of scales', () => {
  it('degrees count as the major scale does', () => {
    for (const tonic of TONICS) {
      const degrees = scaleTones(tonic, 'major').map((pc) => degreeAbove(tonic, pc))
      expect(degrees).toEqual(['1', '2', '3', '4', '5', '6', '7'])
      expect(scaleTones(tonic, 'blues').map((pc) => degreeAbove(tonic, pc))).toEqual([
        '1',
        'b3',
        '4',
        'b5',
        '5',
        'b7',
      ])
    }
  })
})

describe('names of notes', () => {
  it('the German ones of the primers: H, B, Fis, Es, As, Heses (common knowledge, no source)', () => {
    const german = (text: string) => {
      const { step, alter } = readPitch(`${text}4`)!
      return noteIn('german', { step, alter })
    }
    expect(['B', 'Bb', 'F#', 'Eb', 'Ab', 'Bbb', 'C#', 'Gb', 'Abb', 'F##', 'Ebb'].map(german)).toEqual([
      ...['H', 'B', 'Fis', 'Es', 'As', 'Heses', 'Cis', 'Ges', 'Ases', 'Fisis', 'Eses'],
    ])
  })

  it('are read back in every naming, with a chord behind them', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...NOTE_NAMINGS),
        names,
        fc.constantFrom('', 'm', 'm7', '7', 'maj7', '/5'),
        (naming, name, rest) => {
          const text = toLetters(naming, noteIn(naming, name) + rest)
          const [, step, signs] = /^([A-G])((?:[#♯b♭])*)/.exec(text)!
          const alter = [...signs!].reduce((sum, c) => sum + ('#♯'.includes(c) ? 1 : -1), 0)
          expect({ step, alter }).toEqual(name)
          expect(text.endsWith(rest)).toBe(true)
        },
      ),
    )
  })

  it('are different for different notes', () => {
    for (const naming of NOTE_NAMINGS) {
      const all = STEPS.flatMap((step) => [-2, -1, 0, 1, 2].map((alter) => noteIn(naming, { step, alter })))
      expect(new Set(all).size).toBe(all.length)
    }
  })

  it('of keys are those of their tonic', () => {
    for (const tonic of TONICS)
      for (const naming of NOTE_NAMINGS)
        expect(keyIn(naming, keyOf(tonic, 'dorian'))).toBe(`${noteIn(naming, tonic)} dorian`)
  })

  it('plain names are those of their pitch class', () => {
    for (let pc = 0; pc < 12; pc++)
      for (const flats of [true, false]) {
        expect(pitchClass(plainName(pc, flats))).toBe(pc)
        expect(plainName(pc, flats).alter).toBeGreaterThanOrEqual(flats ? -1 : 0)
        expect(plainName(pc, flats).alter).toBeLessThanOrEqual(flats ? 0 : 1)
      }
  })
})
