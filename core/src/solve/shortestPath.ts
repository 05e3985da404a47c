import type { CandidateSet } from './candidate.ts'
import { transitionCost, type Step } from './transition.ts'

/** A chain of slices to be solved. `steps[t]` joins slice t−1 to t; undefined where nothing is played across. */
export interface Chain {
  readonly sets: readonly CandidateSet[]
  readonly beats: readonly number[]
  readonly steps: readonly (Step | undefined)[]
  /** Further prices by slice and candidate: joins of the played order, likeness of repeated measures. */
  readonly extra?: readonly (Float64Array | undefined)[]
}

export interface Path {
  readonly choice: Int32Array
  readonly cost: number
}

/**
 * The cheapest choice of one candidate a slice: dynamic programming, exact over the candidates.
 * Predecessors are bucketed by the notes that must be held and tried in order of cost; as no transition costs less
 * than nothing, the search of a bucket ends as soon as its entries alone cost more than the best found.
 * A generator: yields the share done now and then, so that a caller can show progress or stop.
 */
export function* cheapestPath(chain: Chain): Generator<number, Path> {
  const n = chain.sets.length
  const back: Int32Array[] = []
  let cost = nodeCosts(chain, 0)
  for (let t = 1; t < n; t++) {
    if (t % 64 === 0) yield t / n
    const step = chain.steps[t]
    const a = chain.sets[t - 1]!
    const b = chain.sets[t]!
    const next = nodeCosts(chain, t)
    const from = new Int32Array(b.list.length)
    const order = sortedByCost(cost)
    if (!step) {
      const first = order[0]!
      for (let j = 0; j < next.length; j++) next[j] = next[j]! + cost[first]!
      from.fill(first)
    } else relax(a, b, cost, order, next, from, step)
    back.push(from)
    cost = next
  }
  let last = 0
  for (let j = 1; j < cost.length; j++) if (cost[j]! < cost[last]!) last = j
  const choice = new Int32Array(n)
  const total = cost[last] ?? 0
  for (let t = n - 1; t >= 0; t--) {
    choice[t] = last
    if (t > 0) last = back[t - 1]![last]!
  }
  return { choice, cost: total }
}

function relax(
  a: CandidateSet,
  b: CandidateSet,
  cost: Float64Array,
  order: Int32Array,
  next: Float64Array,
  from: Int32Array,
  step: Step,
): void {
  const buckets = new Map<number, Int32Array>()
  for (let j = 0; j < next.length; j++) {
    const melody = step.holdsMelody ? b.melody[j]! : step.ringsOn ? b.planted[j]! : 0
    const bass = step.holdsBass ? b.bass[j]! : 0
    const inner = step.holdsInner ? b.inner[j]! : 0
    const bucket = bucketFor(buckets, a, order, melody, bass, inner)
    let best = Infinity
    let bestFrom = -1
    for (let k = 0; k < bucket.length; k++) {
      const i = bucket[k]!
      const so = cost[i]!
      if (so >= best) break
      const total = so + transitionCost(a, i, b, j, step)
      if (total < best) {
        best = total
        bestFrom = i
      }
    }
    next[j] = next[j]! + best
    from[j] = bestFrom
  }
}

/** Predecessors that hold these notes, cheapest first; 0 asks for nothing. */
function bucketFor(
  buckets: Map<number, Int32Array>,
  a: CandidateSet,
  order: Int32Array,
  melody: number,
  bass: number,
  inner: number,
): Int32Array {
  if (melody === 0 && bass === 0 && inner === 0) return order
  const key = (melody * 32768 + bass) * 32768 + inner
  const known = buckets.get(key)
  if (known) return known
  const bucket = order.filter(
    (i) =>
      (melody === 0 || a.melody[i] === melody) &&
      (bass === 0 || a.bass[i] === bass) &&
      (inner === 0 || a.inner[i] === inner),
  )
  buckets.set(key, bucket)
  return bucket
}

function nodeCosts(chain: Chain, t: number): Float64Array {
  const set = chain.sets[t]!
  const beats = chain.beats[t]!
  const extra = chain.extra?.[t]
  const costs = new Float64Array(set.list.length)
  for (let j = 0; j < costs.length; j++)
    costs[j] = set.fixed[j]! + set.perBeat[j]! * beats + (extra ? extra[j]! : 0)
  return costs
}

function sortedByCost(cost: Float64Array): Int32Array {
  const order = new Int32Array(cost.length)
  for (let i = 0; i < order.length; i++) order[i] = i
  return order.sort((x, y) => cost[x]! - cost[y]!)
}
