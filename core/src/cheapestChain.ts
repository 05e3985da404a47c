import type { Turns } from './turns.ts'

/** One stage of a chain: its choices, by their own prices. */
export interface ChainStage {
  readonly prices: readonly number[]
}

/** Price of going from choice `i` of a stage to choice `j` of the next; once it has reached `limit` any number from there on may come back. */
export type JoinPricer = (i: number, j: number, limit: number) => number

/**
 * The cheapest way through a chain of stages, exact: dynamic programming, one choice a stage. No join costs less than is
 * said, so that a dear way is given up early.
 * @param joinInto the pricer of the join into a stage (from 1 on)
 * @param leastJoin what no join costs less than; below nothing where some are wanted
 * @returns the index of the choice at each stage, and what they cost together
 */
export function* cheapestChain(
  stages: readonly ChainStage[],
  joinInto: (stage: number) => JoinPricer,
  leastJoin = 0,
): Turns<{ readonly choice: readonly number[]; readonly cost: number }> {
  if (stages.length === 0) return { choice: [], cost: 0 }
  let costs = [...stages[0]!.prices]
  const cameFrom: number[][] = []
  for (let t = 1; t < stages.length; t++) {
    if (t % 4 === 0) yield
    const price = joinInto(t)
    const order = costs.map((_, i) => i).sort((a, b) => costs[a]! - costs[b]!)
    const from: number[] = []
    const before = costs
    costs = stages[t]!.prices.map((own, j) => {
      let best = Infinity
      for (const i of order) {
        if (before[i]! + leastJoin >= best) break
        const cost = before[i]! + price(i, j, best - before[i]!)
        if (cost < best) {
          best = cost
          from[j] = i
        }
      }
      return best + own
    })
    cameFrom.push(from)
  }
  const cost = Math.min(...costs)
  const choice = [costs.indexOf(cost)]
  for (let t = cameFrom.length - 1; t >= 0; t--) choice.push(cameFrom[t]![choice.at(-1)!]!)
  return { choice: choice.reverse(), cost }
}
