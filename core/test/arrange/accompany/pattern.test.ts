import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  fitsMetre,
  measuresOf,
  PATTERN_LIBRARY,
  patternProblemMessage,
  readPattern,
  stepsOf,
  usualPattern,
  writePattern,
  type Pattern,
  type PatternStep,
  type PatternString,
} from '../../../src/arrange/index.ts'
import { say } from '../../support/words.ts'

const string: fc.Arbitrary<PatternString> = fc.oneof(
  fc.constant({ of: 'bass' as const }),
  fc.constant({ of: 'other' as const }),
  fc.integer({ min: 1, max: 6 }).map((n) => ({ of: 'string' as const, string: n })),
  fc.integer({ min: 1, max: 4 }).map((n) => ({ of: 'above' as const, steps: n })),
)
const reach = fc
  .tuple(fc.integer({ min: 1, max: 6 }), fc.integer({ min: 1, max: 6 }))
  .map(([a, b]) => ({ least: Math.min(a, b), most: Math.max(a, b) }))
const sweep = fc
  .record({
    direction: fc.constantFrom('down' as const, 'up' as const),
    over: fc.constantFrom('all' as const, 'trebles' as const),
    muted: fc.boolean(),
    reach: fc.option(reach, { nil: undefined }),
  })
  .map(({ reach: r, ...s }) => ({ ...s, ...(r ?? {}) }))
const step: fc.Arbitrary<PatternStep> = fc
  .record({
    strings: fc.uniqueArray(string, { maxLength: 3, selector: (s) => JSON.stringify(s) }),
    sweep: fc.option(sweep, { nil: undefined }),
    accent: fc.boolean(),
    palm: fc.boolean(),
  })
  .filter((s) => s.strings.length > 0 || s.sweep !== undefined)
  .map(({ sweep: s, ...rest }) => ({ ...rest, ...(s ? { sweep: s } : {}) }))
const metre = fc.constantFrom(
  { num: 4, den: 4 },
  { num: 3, den: 4 },
  { num: 6, den: 8 },
  { num: 5, den: 4 },
  { num: 2, den: 2 },
)
const pattern: fc.Arbitrary<Pattern> = fc
  .tuple(metre, fc.integer({ min: 1, max: 4 }), fc.integer({ min: 1, max: 2 }))
  .chain(([m, perBeat, measures]) => {
    const size = stepsOf(m, perBeat) * measures
    return fc
      .array(fc.option(step, { nil: undefined }), { minLength: size, maxLength: size })
      .filter((steps) => steps.some((s) => s))
      .map((steps) => ({ metre: m, perBeat, steps }))
  })

describe('a pattern in writing', () => {
  it('reads back what it writes, whatever is in it', () => {
    fc.assert(
      fc.property(pattern, (p) => {
        expect(readPattern(writePattern(p))).toEqual({ ok: true, pattern: p })
      }),
      { numRuns: 300 },
    )
  })

  it('never throws on any text, and says what is wrong and what would do', () => {
    fc.assert(
      fc.property(fc.string({ unit: fc.constantFrom(...'ba123^DUdu()!*_. |-9x') }), metre, (text, m) => {
        const reading = readPattern({ metre: m, perBeat: 2, text })
        if (reading.ok) expect(reading.pattern.steps.length % stepsOf(m, 2)).toBe(0)
        else expect(say(patternProblemMessage(reading.problem))).toMatch(/\.$/)
      }),
      { numRuns: 500 },
    )
  })

  it('names the step and the way out', () => {
    const read = (text: string) => readPattern({ metre: { num: 4, den: 4 }, perBeat: 1, text })
    const said = (text: string) => {
      const reading = read(text)
      return reading.ok ? '' : say(patternProblemMessage(reading.problem))
    }
    expect(said('b 3 2')).toBe(
      'Measure 1 of the pattern has 3 steps, and 4 fill it. Add 1 (a dot lets ring).',
    )
    expect(said('b 3 2 1 2')).toBe(
      'Measure 1 of the pattern has 5 steps, and 4 fill it. Take out 1, or add a bar line.',
    )
    expect(said('b 3 2 1 | b 3 2')).toMatch(/^Measure 2 of the pattern has 3 steps/)
    expect(said('b 3 q 1')).toMatch(/^Step 3, "q": use b, a, string numbers/)
    expect(said('b 33 2 1')).toMatch(/^Step 2, "33": a string is named twice/)
    expect(said('b d(3-2) 2 1')).toMatch(/^Step 2, "d\(3-2\)": "at least" is more than "at most"/)
    expect(said('. . . .')).toMatch(/^The pattern is silent/)
    expect(said('b 3* 2 1')).toMatch(/^Step 2/)
  })
})

describe('the library', () => {
  it('is readable, whole measures, under names of its own', () => {
    expect(new Set(PATTERN_LIBRARY.map((p) => p.id)).size).toBe(PATTERN_LIBRARY.length)
    for (const entry of PATTERN_LIBRARY) {
      const reading = readPattern(entry)
      expect(reading.ok, entry.id).toBe(true)
      if (reading.ok) expect(measuresOf(reading.pattern), entry.id).toBeGreaterThanOrEqual(1)
    }
  })

  it('has something to play in every metre, never fuller than the level', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 15 }),
        fc.constantFrom(2, 4, 8, 16),
        fc.constantFrom('picking' as const, 'bass-brush' as const, 'strum' as const),
        fc.constantFrom(1 as const, 2 as const, 3 as const, 4 as const, 5 as const),
        (num, den, style, level) => {
          const usual = usualPattern(style, level, { num, den })
          expect(fitsMetre(usual, { num, den })).toBe(true)
          expect(readPattern(usual).ok).toBe(true)
          const known = PATTERN_LIBRARY.find((p) => p.text === usual.text && p.style === style)
          if (known) expect(known.level).toBeLessThanOrEqual(level)
        },
      ),
    )
  })
})
