import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { codeOfTone, lowerVoices, voicesMoved, voicesNotLed } from '../../src/chords/lowerVoices.ts'
import { guitarSetup, pitchAt } from '../../src/instrument/index.ts'
import { mod12 } from '../../src/music/index.ts'

const frets = fc.array(fc.option(fc.integer({ min: 0, max: 20 })), { minLength: 6, maxLength: 6 })

describe('lower voices as a number', () => {
  it('tells how many places of the second chord the first does not have: as plain comparing finds', () => {
    fc.assert(
      fc.property(frets, frets, fc.integer({ min: 1, max: 6 }), (a, b, string) => {
        const melody = { string, fret: 0 }
        const without = (chord: readonly (number | null)[]) =>
          chord.map((f, i) => (i + 1 === string ? null : f))
        const plain = without(b).filter((f, i) => f !== null && without(a)[i] !== f).length
        expect(voicesMoved(lowerVoices(a, melody), lowerVoices(b, melody))).toBe(plain)
      }),
    )
  })

  it('tells which voices with a tone do not go down by a step on their string: as the pitches say', () => {
    fc.assert(
      fc.property(
        frets,
        frets,
        fc.integer({ min: 0, max: 11 }),
        fc.constantFrom(1, 2),
        fc.integer({ min: 0, max: 5 }),
        (a, b, tone, down, capo) => {
          const setup = guitarSetup(capo)
          const plain = a.filter(
            (fret, i) =>
              fret !== null &&
              mod12(pitchAt(setup, { string: i + 1, fret })) === tone &&
              b[i] !== fret - down,
          ).length
          const codes = [a, b].map((chord) => lowerVoices(chord, undefined))
          expect(voicesNotLed(codes[0]!, codes[1]!, codeOfTone(setup, tone), down)).toBe(plain)
        },
      ),
    )
  })

  it('is nothing for silence', () => {
    expect(lowerVoices([null, null, null, null], undefined)).toBe(0)
  })
})
