import fc from 'fast-check'
import { guitarSetup, setupOf, tuningById } from '@velvet-porch/core/instrument'
import { describe, expect, it } from 'vitest'
import { neckView } from '../src/score/neck/neckView.ts'

const SETUPS = [
  guitarSetup(0),
  guitarSetup(3),
  setupOf('mandolin', tuningById('mandolin', 'standard'), { fret: 0 }),
]

describe('the standing neck', () => {
  it('has places that a finger can tap on a laptop and a tablet', () => {
    for (const setup of SETUPS)
      for (const size of [
        { width: 230, height: 430 },
        { width: 190, height: 500 },
      ]) {
        const view = neckView(setup, 1, size)
        const gap = Math.abs(view.place(1, 1).cx - view.place(2, 1).cx)
        expect(gap).toBeGreaterThanOrEqual(setup.instrument.kind === 'mandolin' ? 20 : 24)
        expect(view.finger).toBe(12)
      }
  })

  it('stays within its window however narrow it is, and fingers do not cover each other', () => {
    const size = fc.record({
      width: fc.integer({ min: 125, max: 400 }),
      height: fc.integer({ min: 240, max: 900 }),
    })
    fc.assert(
      fc.property(
        fc.constantFrom(...SETUPS),
        size,
        fc.integer({ min: 1, max: 7 }),
        (setup, window, position) => {
          const view = neckView(setup, position, window)
          const xs = view.strings.map((s) => view.place(s, position).cx)
          expect(Math.min(...xs) - view.finger).toBeGreaterThanOrEqual(0)
          expect(Math.max(...xs) + view.finger).toBeLessThanOrEqual(window.width)
          const gaps = xs.slice(1).map((x, i) => Math.abs(x - xs[i]!))
          expect(Math.min(...gaps)).toBeGreaterThanOrEqual(2 * view.finger - 1)
          // True to scale: frets come closer together up the neck, by the twelfth root of two.
          const [a, b, c] = [0, 1, 2].map((i) => view.fretY(view.top + i))
          expect((b! - a!) / (c! - b!)).toBeCloseTo(2 ** (1 / 12), 6)
        },
      ),
    )
  })
})
