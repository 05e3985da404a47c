import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { guitarSetup } from '../../../src/instrument/index.ts'
import { finish } from '../../../src/turns.ts'
import { packCandidates, voiceKey, type Candidate } from '../../../src/arrange/search/candidate.ts'
import { positionOf } from '../../../src/hand/grip/position.ts'
import { BARE } from '../../support/draft.ts'
import { cheapestPath } from '../../../src/arrange/search/shortestPath.ts'
import { transitionCost, transitionTerms, type Transition } from '../../../src/arrange/search/transition.ts'

const setup = guitarSetup()

const pressed = fc.record({
  string: fc.integer({ min: 1, max: 6 }),
  fret: fc.integer({ min: 1, max: 9 }),
  finger: fc.integer({ min: 1, max: 4 }),
})

/** A random grip with random prices; legality does not matter to the search. */
const candidate: fc.Arbitrary<Candidate> = fc
  .record({
    pressed: fc.uniqueArray(pressed, { maxLength: 3, selector: (p) => p.finger }),
    melodyIndex: fc.integer({ min: -1, max: 2 }),
    bassIndex: fc.integer({ min: -1, max: 2 }),
    innerIndex: fc.integer({ min: -1, max: 2 }),
    plantedIndex: fc.integer({ min: -1, max: 2 }),
    heldShape: fc.integer({ min: -1, max: 2 }),
    lower: fc.integer({ min: 0, max: 2 ** 30 - 1 }),
    fixed: fc.double({ min: 0, max: 12, noNaN: true }),
    perBeat: fc.double({ min: 0, max: 2, noNaN: true }),
  })
  .map((c) => {
    const key = (i: number) => {
      const p = c.pressed[i]
      return i < 0 ? 0 : p ? voiceKey(p.string, p.fret, p.finger) : voiceKey(i + 1, 0, 0)
    }
    return {
      draft: BARE,
      pressed: c.pressed,
      position: positionOf(c.pressed),
      melody: key(c.melodyIndex),
      bass: key(c.bassIndex),
      inner: key(c.innerIndex),
      planted: key(c.plantedIndex),
      chord: [],
      heldShape: c.heldShape,
      lower: c.lower,
      fixed: c.fixed,
      perBeat: c.perBeat,
    }
  })

const step: fc.Arbitrary<Transition> = fc.record({
  seconds: fc.double({ min: 0.05, max: 2, noNaN: true }),
  holdsMelody: fc.boolean(),
  holdsBass: fc.boolean(),
  holdsInner: fc.boolean(),
  holdsVoicing: fc.boolean(),
  revoices: fc.boolean(),
  ledTone: fc.constantFrom(0, 0b00110_00001_01011_00110_00001_01000),
  ledDown: fc.constantFrom(1, 2),
  fillAgainPrice: fc.constantFrom(0, 2.5, 3.5),
  ringsOn: fc.boolean(),
  melodyBeatsLeft: fc.double({ min: 0.25, max: 4, noNaN: true }),
  bassBeatsLeft: fc.double({ min: 0.25, max: 4, noNaN: true }),
  innerBeatsLeft: fc.double({ min: 0.25, max: 4, noNaN: true }),
  sameChordBass: fc.boolean(),
  melodyAgain: fc.boolean(),
  slurPrice: fc.constantFrom(0, 1, 4),
  upstrokePrice: fc.constantFrom(0, 2.5),
  secondLeapPrice: fc.constantFrom(0, 2.5),
  stepOffOpenPrice: fc.constantFrom(0, 2.5),
  shiftShare: fc.constantFrom(1, 1.7),
})

/** A window in which each slice also offers a candidate that holds nothing, as generation guarantees. */
const window = fc
  .array(
    fc.tuple(
      fc.array(candidate, { minLength: 1, maxLength: 4 }),
      step,
      fc.double({ min: 0.1, max: 4, noNaN: true }),
    ),
    { minLength: 1, maxLength: 8 },
  )
  .map((slices) =>
    slices.map(([list, join, beats]) => ({
      list: [...list, { ...list[0]!, melody: 0, bass: 0, inner: 0, planted: 0, fixed: list[0]!.fixed + 3 }],
      join,
      beats,
    })),
  )

describe('the search against brute force', () => {
  it('finds the cost of the best of all paths, scored apart from it', () => {
    fc.assert(
      fc.property(window, (slices) => {
        const sets = slices.map((s) => packCandidates(setup, s.list))
        const steps = slices.map((s, t) => (t === 0 ? undefined : s.join))
        const beats = slices.map((s) => s.beats)
        const found = finish(cheapestPath({ sets, steps, beats }))
        expect(found.cost).toBeCloseTo(bruteForce(slices), 6)
        expect(score(slices, [...found.choice])).toBeCloseTo(found.cost, 6)
      }),
      { numRuns: 250, seed: 7 },
    )
  })

  it('goes on from an earlier search to the same cost, wherever prices changed', () => {
    fc.assert(
      fc.property(
        window,
        fc.array(fc.tuple(fc.nat(7), fc.nat(4), fc.double({ min: 0, max: 9, noNaN: true })), {
          maxLength: 4,
        }),
        (slices, changes) => {
          const sets = slices.map((s) => packCandidates(setup, s.list))
          const steps = slices.map((s, t) => (t === 0 ? undefined : s.join))
          const beats = slices.map((s) => s.beats)
          const chain = { sets, steps, beats }
          const { trace } = finish(cheapestPath(chain))
          const extra = sets.map((set, t) => {
            const prices = new Float64Array(set.list.length)
            for (const [at, j, price] of changes) if (at === t && j < prices.length) prices[j]! += price
            return prices
          })
          const changed = { ...chain, extra }
          const again = finish(cheapestPath(changed, trace))
          const afresh = finish(cheapestPath(changed))
          expect(again.cost).toBeCloseTo(afresh.cost, 6)
          const back = finish(cheapestPath(chain, again.trace))
          expect(back.cost).toBeCloseTo(finish(cheapestPath(chain)).cost, 6)
        },
      ),
      { numRuns: 200, seed: 9 },
    )
  })

  it('the fast transition cost is the sum of the terms that are shown', () => {
    fc.assert(
      fc.property(candidate, candidate, step, (a, b, join) => {
        const sets = [packCandidates(setup, [a]), packCandidates(setup, [b])] as const
        const terms = transitionTerms(sets[0], 0, sets[1], 0, join)
        expect(terms.reduce((sum, t) => sum + t.cost, 0)).toBeCloseTo(
          transitionCost(sets[0], 0, sets[1], 0, join),
          9,
        )
        expect(transitionCost(sets[0], 0, sets[1], 0, join)).toBeGreaterThanOrEqual(0)
      }),
      { numRuns: 500, seed: 8 },
    )
  })
})

type Window = readonly {
  readonly list: readonly Candidate[]
  readonly join: Transition
  readonly beats: number
}[]

/** An independent scorer: whole paths, from the terms in words; infinite where a held note changes. */
function score(slices: Window, choice: readonly number[]): number {
  let cost = 0
  slices.forEach((s, t) => {
    const c = s.list[choice[t]!]!
    cost += c.fixed + c.perBeat * s.beats
    if (t === 0) return
    const before = slices[t - 1]!.list[choice[t - 1]!]!
    if (s.join.holdsMelody && c.melody !== 0 && c.melody !== before.melody) cost = Infinity
    if (s.join.holdsBass && c.bass !== 0 && c.bass !== before.bass) cost = Infinity
    if (s.join.holdsInner && c.inner !== 0 && c.inner !== before.inner) cost = Infinity
    const rings = s.join.ringsOn && !s.join.holdsMelody
    if (rings && c.planted !== 0 && c.planted !== before.melody) cost = Infinity
    const [a, b] = [packCandidates(setup, [before]), packCandidates(setup, [c])]
    cost += transitionTerms(a, 0, b, 0, s.join).reduce((sum, term) => sum + term.cost, 0)
  })
  return cost
}

function bruteForce(slices: Window): number {
  let best = Infinity
  const walk = (choice: number[], soFar: number) => {
    const t = choice.length
    if (t === slices.length) {
      best = Math.min(best, soFar)
      return
    }
    for (let j = 0; j < slices[t]!.list.length; j++) {
      const cost = score(slices.slice(0, t + 1), [...choice, j])
      if (cost < best) walk([...choice, j], cost)
    }
  }
  walk([], 0)
  return best
}
