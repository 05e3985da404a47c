import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { lowerVoices, voicesMoved } from '../../../src/arrange/search/lowerVoices.ts'

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

  it('is nothing for silence', () => {
    expect(lowerVoices([null, null, null, null], undefined)).toBe(0)
  })
})
