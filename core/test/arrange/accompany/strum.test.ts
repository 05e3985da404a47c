import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { countAt } from '../../../src/music/index.ts'
import { readPattern, readStrum, stepsOf, stepTicks, type Placement } from '../../../src/arrange/index.ts'

const FOUR = { num: 4, den: 4 }

/** Where the strokes fall, as they are counted. */
function counts({ steps, pattern }: Placement): string[] {
  const read = readPattern(pattern)
  if (!read.ok) throw new Error('not readable')
  return steps.map((s) => {
    const count = countAt(read.pattern.metre, s * stepTicks(read.pattern))!
    return /^\d/.test(count) ? count : `${Math.floor(s / pattern.perBeat) + 1}${count}`
  })
}

/** Every choice of as many steps as there are strokes, by plain counting; kept where the arm agrees. */
function bruteForce(
  strokes: readonly ('down' | 'up')[],
  joined: readonly boolean[],
  perBeat: number,
): number {
  const size = stepsOf(FOUR, perBeat)
  let found = 0
  for (let mask = 0; mask < 1 << size; mask++) {
    const steps = Array.from({ length: size }, (_, i) => i).filter((i) => mask & (1 << i))
    if (steps.length !== strokes.length) continue
    const arm = (s: number) => (perBeat === 4 ? s % 2 === 0 : s % perBeat === 0) === true
    const agrees = steps.every((s, i) => arm(s) === (strokes[i] === 'down'))
    const together = steps.every(
      (s, i) => !joined[i] || Math.floor(s / perBeat) === Math.floor(steps[i - 1]! / perBeat),
    )
    if (agrees && together) found++
  }
  return found
}

describe('a strum in words', () => {
  it('falls where the trade has it: down down down-up down-up on 1, 2, 3 & and 4 & (common practice, no source)', () => {
    for (const text of [
      'down down down-up down-up',
      'D D DU DU',
      'd d d-u d-u',
      'Down, down, down-up; down-up',
    ]) {
      const reading = readStrum(text, FOUR, 2)
      expect(reading.kind, text).toBe('placed')
      if (reading.kind === 'placed')
        expect(counts(reading.placement)).toEqual(['1', '2', '3', '3&', '4', '4&'])
    }
  })

  it('on sixteenths beat and "and" are down, "e" and "a" up (common practice, no source)', () => {
    const all = readStrum('dudu dudu dudu dudu', FOUR, 4)
    expect(all.kind).toBe('placed')
    if (all.kind !== 'placed') return
    const placed = counts(all.placement)
    expect(placed.slice(0, 4)).toEqual(['1', '1e', '1&', '1a'])
    const read = readPattern(all.placement.pattern)
    if (!read.ok) throw new Error()
    read.pattern.steps.forEach((s, i) => expect(s!.sweep!.direction).toBe(i % 2 === 0 ? 'down' : 'up'))
  })

  it('asks where it is ambiguous, and only then: as many ways as plain counting finds', () => {
    const word = fc.constantFrom('down', 'up', 'down-up')
    fc.assert(
      fc.property(fc.array(word, { minLength: 1, maxLength: 6 }), fc.constantFrom(2, 4), (words, perBeat) => {
        const strokes = words.flatMap((w) => w.split('-') as ('down' | 'up')[])
        const joined = words.flatMap((w) => w.split('-').map((_, i) => i > 0))
        const ways = bruteForce(strokes, joined, perBeat)
        const reading = readStrum(words.join(' '), FOUR, perBeat)
        if (ways === 0) expect(reading.kind).toBe('unplaced')
        else if (ways === 1) expect(reading.kind).toBe('placed')
        else {
          expect(reading.kind).toBe('ambiguous')
          if (reading.kind === 'ambiguous') {
            expect(reading.choices.length).toBe(Math.min(6, ways))
            expect(new Set(reading.choices.map((c) => c.pattern.text)).size).toBe(reading.choices.length)
          }
        }
      }),
      { numRuns: 120 },
    )
  })

  it('says what cannot be placed, with the nearest thing that works', () => {
    const tight = readStrum('down down down down down', FOUR, 2)
    expect(tight).toMatchObject({ kind: 'unplaced', reason: 'tooMany', what: '5', perBeat: 4 })
    if (tight.kind === 'unplaced') expect(tight.nearest?.kind).toBe('ambiguous')
    expect(readStrum('down dwn', FOUR, 2)).toMatchObject({ kind: 'unplaced', reason: 'words', what: 'dwn' })
    expect(readStrum('  ', FOUR, 2)).toMatchObject({ kind: 'unplaced', reason: 'empty' })
  })

  it('keeps accents and muted strokes', () => {
    const reading = readStrum('d! d* du du', FOUR, 2)
    expect(reading.kind === 'placed' && reading.placement.pattern.text).toBe('D! . D* . D U D U')
  })
})

describe('the count', () => {
  it.each([
    [{ num: 4, den: 4 }, 4, '1 e & a 2 e & a 3 e & a 4 e & a'],
    [{ num: 3, den: 4 }, 2, '1 & 2 & 3 &'],
    [{ num: 6, den: 8 }, 3, '1 2 3 4 5 6'],
    [{ num: 4, den: 4 }, 3, '1 trip let 2 trip let 3 trip let 4 trip let'],
  ])('of %o in %i is said as teachers say it (common practice, no source)', (metre, perBeat, said) => {
    const ticks = stepTicks({ metre, perBeat })
    const found = Array.from({ length: stepsOf(metre, perBeat) }, (_, i) => countAt(metre, i * ticks))
    expect(found.join(' ')).toBe(said)
  })
})

describe('strums on very fine grids', () => {
  it.each([
    ['down down down-up down-up', { num: 32, den: 4 }, 8],
    ['du '.repeat(40), { num: 64, den: 64 }, 8],
    ['up-down-up-down', { num: 64, den: 4 }, 1],
    ['down-up-down-up-down', { num: 12, den: 8 }, 2],
  ] as const)(
    '"%s" is placed or refused, and nothing is tried that leads nowhere',
    (text, metre, perBeat) => {
      const reading = readStrum(text, metre, perBeat)
      expect(['placed', 'ambiguous', 'unplaced']).toContain(reading.kind)
      if (reading.kind === 'ambiguous') expect(reading.choices.length).toBeLessThanOrEqual(6)
    },
  )
})
