import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  ADULT_SPANS,
  bendEffort,
  bendRange,
  guitarSetup,
  INSTRUMENTS,
  setupOf,
} from '../../src/instrument/index.ts'

const guitar = guitarSetup()
const range = (string: number, fret: number, setup = guitar) => bendRange(setup, { string, fret })
const child = {
  ...guitar,
  player: {
    ...guitar.player,
    spans: Object.fromEntries(
      Object.entries(ADULT_SPANS).map(([k, v]) => [k, v * 0.75]),
    ) as typeof ADULT_SPANS,
  },
}
const place = fc.record({ string: fc.integer({ min: 1, max: 6 }), fret: fc.integer({ min: 1, max: 15 }) })

describe('how far a string can be pushed up', () => {
  it('is what players do every day (common practice, no source)', () => {
    // A full tone on string 3 at fret 7, and on string 2 in the middle of the neck.
    expect(range(3, 7).easy).toBeGreaterThanOrEqual(2)
    expect(range(2, 8).easy).toBeGreaterThanOrEqual(2)
    // At the nut a half tone is work, a full one more so.
    expect(range(3, 1).easy).toBe(0)
    expect(range(1, 1).easy).toBeLessThan(2)
    expect(range(4, 0)).toEqual({ easy: 0, most: 0 })
  })

  it('takes the forces and ways of the string (Hooke; a handbook’s triangle of forces)', () => {
    // By hand: string 1, 104 N, 0.305 mm of steel, fret 12 of 648 mm: two semitones are 26 % more tension.
    const { force, way } = bendEffort(guitar, { string: 1, fret: 12 }, 2)
    const tighter = 104 * (2 ** (2 / 6) - 1)
    const stretch = (648 * tighter) / (200_000 * Math.PI * 0.1525 ** 2)
    expect(way).toBeCloseTo(Math.sqrt((324 + stretch / 2) ** 2 - 324 ** 2), 0)
    expect(force).toBeCloseTo((2 * (104 + tighter) * way) / 324, 0)
  })

  it('grows with the semitones, eases towards the middle, and never passes what is possible', () => {
    fc.assert(
      fc.property(place, fc.integer({ min: 1, max: 3 }), (at, n) => {
        expect(bendEffort(guitar, at, n + 1).force).toBeGreaterThan(bendEffort(guitar, at, n).force)
        if (at.fret < 12)
          expect(bendEffort(guitar, { ...at, fret: at.fret + 1 }, n).force).toBeLessThan(
            bendEffort(guitar, at, n).force,
          )
        const { easy, most } = bendRange(guitar, at)
        expect(easy).toBeLessThanOrEqual(most)
        const small = bendRange(child, at)
        expect(small.easy).toBeLessThanOrEqual(easy)
        expect(small.most).toBeLessThanOrEqual(most)
        // A capo shortens the string behind the finger.
        expect(bendRange(guitarSetup(3), at).most).toBeLessThanOrEqual(4)
      }),
    )
  })

  it('is less on the pairs of a mandolin', () => {
    const mandolin = setupOf('mandolin', INSTRUMENTS.mandolin.usual, { fret: 0 })
    for (const string of [1, 2, 3, 4])
      expect(bendEffort(mandolin, { string, fret: 5 }, 1).force).toBeGreaterThan(
        0.9 * bendEffort(guitar, { string, fret: 5 }, 1).force,
      )
    expect(range(1, 2, mandolin).easy).toBeLessThanOrEqual(1)
  })
})
