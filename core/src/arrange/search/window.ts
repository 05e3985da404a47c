import type { CandidateSet } from './candidate.ts'
import { transitionPricer, type Transition } from './transition.ts'

/** Some slices of a plan between two that stay as they are. */
export interface Window {
  readonly sets: readonly CandidateSet[]
  /** Price of each candidate on its own, what surrounds the window included. */
  readonly own: readonly Float64Array[]
  /** Joins between slices of the window; `steps[0]` is not looked at. */
  readonly steps: readonly (Transition | undefined)[]
}

/** For every candidate of every slice, the cheapest way through the window that takes it. */
export interface PathsThrough {
  readonly least: readonly Float64Array[]
  /** The way that takes a candidate: one candidate for each slice. */
  wayOf(slice: number, candidate: number): Int32Array
}

/**
 * The least cost of a way through each candidate: forward and backward dynamic programming, exact. Candidates that no
 * way can take cost Infinity.
 */
export function pathsThrough({ sets, own, steps }: Window): PathsThrough {
  const n = sets.length
  const forward: Float64Array[] = [own[0]!.slice()]
  const from: Int32Array[] = [new Int32Array(own[0]!.length)]
  for (let t = 1; t < n; t++) {
    const { best, by } = bestPartners(sets[t - 1]!, sets[t]!, forward[t - 1]!, steps[t], 'to')
    forward.push(best.map((cost, j) => cost + own[t]![j]!))
    from.push(by)
  }
  const backward: Float64Array[] = []
  const to: Int32Array[] = []
  backward[n - 1] = new Float64Array(own[n - 1]!.length)
  to[n - 1] = new Int32Array(own[n - 1]!.length)
  for (let t = n - 2; t >= 0; t--) {
    const ahead = backward[t + 1]!.map((cost, j) => cost + own[t + 1]![j]!)
    const { best, by } = bestPartners(sets[t]!, sets[t + 1]!, ahead, steps[t + 1], 'from')
    backward[t] = best
    to[t] = by
  }
  return {
    least: forward.map((costs, t) => costs.map((cost, j) => cost + backward[t]![j]!)),
    wayOf(slice, candidate) {
      const way = new Int32Array(n)
      way[slice] = candidate
      for (let t = slice; t > 0; t--) way[t - 1] = from[t]![way[t]!]!
      for (let t = slice; t < n - 1; t++) way[t + 1] = to[t]![way[t]!]!
      return way
    },
  }
}

/** For each candidate on one side of a join the best partner on the other, whose costs are given. */
function bestPartners(
  a: CandidateSet,
  b: CandidateSet,
  costs: Float64Array,
  step: Transition | undefined,
  side: 'to' | 'from',
): { best: Float64Array; by: Int32Array } {
  const size = side === 'to' ? b.list.length : a.list.length
  const best = new Float64Array(size).fill(Infinity)
  const by = new Int32Array(size)
  const order = Int32Array.from(costs, (_, i) => i).sort((x, y) => costs[x]! - costs[y]!)
  const price = step ? transitionPricer(a, b, step) : undefined
  for (let k = 0; k < size; k++) {
    let least = Infinity
    for (const other of order) {
      if (costs[other]! >= least) break
      const [i, j] = side === 'to' ? [other, k] : [k, other]
      if (step && !mayFollow(a, i, b, j, step)) continue
      const total = costs[other]! + (price ? price(i, j, least - costs[other]!) : 0)
      if (total < least) {
        least = total
        by[k] = other
      }
    }
    best[k] = least
  }
  return { best, by }
}

/** True where a candidate keeps what the one before it holds over, or lets it go. */
export function mayFollow(a: CandidateSet, i: number, b: CandidateSet, j: number, step: Transition): boolean {
  const held = step.holdsMelody ? b.melody[j]! : step.ringsOn ? b.planted[j]! : 0
  if (held !== 0 && a.melody[i] !== held) return false
  if (step.holdsBass && b.bass[j] !== 0 && a.bass[i] !== b.bass[j]) return false
  return !step.holdsInner || b.inner[j] === 0 || a.inner[i] === b.inner[j]
}
