import fc from 'fast-check'
import { TimeSignature } from 'tonal'
import { describe, expect, it } from 'vitest'
import { countAt, countedBeat } from '../../../src/music/time/count.ts'
import {
  beatLength,
  beatStarts,
  isCompound,
  isCounted,
  measureLength,
  missingHead,
  strongBeats,
  type Metre,
} from '../../../src/music/time/metre.ts'
import { QUARTER, secondsOf, WHOLE } from '../../../src/music/time/ticks.ts'
import { writtenValue } from '../../../src/music/time/writtenValue.ts'
import { plainValues } from '../../../src/output/notation/plainValues.ts'

const metres: fc.Arbitrary<Metre> = fc.record({
  num: fc.integer({ min: 1, max: 15 }),
  den: fc.constantFrom(1, 2, 4, 8, 16, 32),
})

describe('a metre', () => {
  it('is compound where tonal says so, for the metres that tonal knows as one or the other', () => {
    for (const den of [2, 4, 8])
      for (const num of [2, 3, 4, 6, 9, 12]) {
        const { type } = TimeSignature.get(`${num}/${den}`)
        // 6/4 is counted in quarters here and 3/8 in three beats: common practice of slow metres and of waltzes.
        if (num !== 3 && (den >= 8 || num < 6))
          expect(isCompound({ num, den }), `${num}/${den}`).toBe(type === 'compound')
      }
  })

  it('is filled by its beats, each as long as the next, the first at its start', () => {
    fc.assert(
      fc.property(metres, (metre) => {
        const starts = beatStarts(metre)
        const beat = beatLength(metre)
        expect(starts[0]).toBe(0)
        starts.slice(1).forEach((at, i) => expect(at - starts[i]!).toBe(beat))
        expect(starts.at(-1)! + beat).toBe(measureLength(metre))
        expect(measureLength(metre)).toBe((metre.num * WHOLE) / metre.den)
      }),
    )
  })

  it('has its strong beats among its beats, the first always', () => {
    fc.assert(
      fc.property(metres, (metre) => {
        const strong = strongBeats(metre)
        expect(strong[0]).toBe(0)
        expect(new Set(strong).size).toBe(strong.length)
        for (const at of strong) expect(beatStarts(metre)).toContain(at)
      }),
    )
  })

  it.each([
    [{ num: 4, den: 4 }, [0, 2]],
    [{ num: 3, den: 4 }, [0]],
    [{ num: 2, den: 4 }, [0]],
    [{ num: 2, den: 2 }, [0, 2]],
    [{ num: 6, den: 8 }, [0, 1.5]],
    [{ num: 5, den: 4 }, [0, 2]],
    [{ num: 7, den: 8 }, [0, 1, 2]],
  ])('%o is stressed at quarters %j (common practice, no source)', (metre, quarters) => {
    expect(strongBeats(metre)).toEqual(quarters.map((q) => q * QUARTER))
  })

  it('a short measure lacks its head, unless it was cut', () => {
    fc.assert(
      fc.property(fc.nat(WHOLE), fc.nat(WHOLE), (length, nominal) => {
        expect(missingHead({ length, nominal })).toBe(Math.max(0, nominal - length))
        expect(missingHead({ length, nominal, cut: true })).toBe(0)
      }),
    )
  })
})

describe('counting', () => {
  it('gives every counted beat its number and nothing else a number', () => {
    fc.assert(
      fc.property(metres, fc.nat(10_000), (metre, share) => {
        const tick = Math.round((share / 10_000) * measureLength(metre))
        const count = countAt(metre, tick)
        expect(/^\d+$/.test(count ?? '')).toBe(isCounted(metre, tick))
        if (isCounted(metre, tick)) expect(Number(count)).toBe(tick / countedBeat(metre) + 1)
      }),
    )
  })

  it('no two places of a beat have the same syllable', () => {
    const metre = { num: 4, den: 4 }
    const places = [2, 3, 4].flatMap((parts) =>
      Array.from({ length: parts - 1 }, (_, i) => ((i + 1) * QUARTER) / parts),
    )
    const distinct = [...new Set(places)]
    const said = distinct.map((p) => countAt(metre, p))
    expect(new Set(said).size).toBe(distinct.length)
    expect(said).not.toContain(undefined)
    // Between them nothing is said.
    expect(countAt(metre, QUARTER / 8)).toBeUndefined()
    expect(countAt(metre, QUARTER / 5)).toBeUndefined()
  })

  it('is the same in every beat', () => {
    const metre = { num: 3, den: 4 }
    for (let tick = 1; tick < QUARTER; tick += 7)
      expect(countAt(metre, tick + QUARTER)).toBe(countAt(metre, tick))
  })
})

describe('values', () => {
  it('of notes are those of their names: undotted, dotted, double-dotted', () => {
    for (const base of [1, 2, 4, 8, 16, 32, 64])
      for (const [dots, factor] of [
        [0, 1],
        [1, 1.5],
        [2, 1.75],
      ] as const)
        expect(writtenValue(factor / base)).toEqual({ base, dots })
  })

  it('what needs a tie gets the largest value below', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 127 }), (n) => {
        const share = n / 64
        const { base, dots } = writtenValue(share)
        const written = (2 - 2 ** -dots) / base
        expect(written).toBeLessThanOrEqual(share + 1e-9)
        expect(written).toBeGreaterThan(share / 2)
      }),
    )
  })

  it('of a length add up to it, longest first, each plain or dotted', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 64 * 3 }), (n) => {
        const ticks = (n * WHOLE) / 64
        const values = plainValues(ticks)
        expect(values.reduce((sum, v) => sum + v.ticks, 0)).toBe(ticks)
        values.slice(1).forEach((v, i) => expect(v.ticks).toBeLessThanOrEqual(values[i]!.ticks))
        for (const v of values) expect(v.ticks).toBe((WHOLE / v.base) * (v.dots ? 1.5 : 1))
      }),
    )
  })

  it('odd rests of a tuplet are given to the last value, and the ticks add up', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 2 * WHOLE }), (ticks) => {
        expect(plainValues(ticks).reduce((sum, v) => sum + v.ticks, 0)).toBe(ticks)
      }),
    )
  })

  it('a length lasts as long as the tempo says: four quarters at 120 are two seconds', () => {
    expect(secondsOf(WHOLE, 120)).toBe(2)
    fc.assert(
      fc.property(fc.nat(WHOLE), fc.integer({ min: 20, max: 400 }), (ticks, bpm) => {
        expect(secondsOf(ticks, bpm)).toBeCloseTo(secondsOf(2 * ticks, 2 * bpm), 10)
        expect(secondsOf(ticks, bpm) + secondsOf(WHOLE, bpm)).toBeCloseTo(secondsOf(ticks + WHOLE, bpm), 9)
      }),
    )
  })
})
