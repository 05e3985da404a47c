import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cheapestChain } from '../../../src/cheapestChain.ts'
import { finish } from '../../../src/turns.ts'

/** A chain of at most five stages of at most four choices, with a price for every join. */
const chains = fc.array(fc.integer({ min: 1, max: 4 }), { minLength: 1, maxLength: 5 }).chain((sizes) =>
  fc.record({
    own: fc.tuple(...sizes.map((n) => fc.array(fc.nat(20), { minLength: n, maxLength: n }))),
    joins: fc.tuple(
      ...sizes.slice(1).map((n, t) =>
        fc.array(fc.array(fc.nat(20), { minLength: n, maxLength: n }), {
          minLength: sizes[t]!,
          maxLength: sizes[t]!,
        }),
      ),
    ),
  }),
)

describe('the cheapest way through a chain', () => {
  it('costs what the cheapest of all ways costs, and is a way that costs so', () => {
    fc.assert(
      fc.property(chains, ({ own, joins }) => {
        const costOf = (choice: readonly number[]) =>
          choice.reduce(
            (sum, j, t) => sum + own[t]![j]! + (t === 0 ? 0 : joins[t - 1]![choice[t - 1]!]![j]!),
            0,
          )
        const all = own.reduce<number[][]>(
          (ways, stage) => ways.flatMap((way) => stage.map((_, j) => [...way, j])),
          [[]],
        )
        const { choice, cost } = finish(
          cheapestChain(
            own.map((prices) => ({ prices })),
            (t) => (i, j) => joins[t - 1]![i]![j]!,
          ),
        )
        expect(cost).toBe(Math.min(...all.map(costOf)))
        expect(costOf(choice)).toBe(cost)
      }),
      { numRuns: 300 },
    )
  })

  it('of no stages is empty', () => {
    expect(finish(cheapestChain([], () => () => 0))).toEqual({ choice: [], cost: 0 })
  })
})
