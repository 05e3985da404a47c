import type { CandidateSet } from './candidate.ts'
import { classesOf, LOOKS, type CandidateClasses } from './candidateClasses.ts'
import { transitionPricer, type Step } from './transition.ts'

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
 * Candidates that a join cannot tell apart are tried once; predecessors are bucketed by the notes that must be held and tried in order of cost; as no transition costs less
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
    if (!step) {
      const first = cheapest(cost)
      for (let j = 0; j < next.length; j++) next[j] = next[j]! + cost[first]!
      from.fill(first)
    } else relax(a, b, cost, next, from, step)
    back.push(from)
    cost = next
  }
  let last = cheapest(cost)
  const choice = new Int32Array(n)
  const total = cost[last] ?? 0
  for (let t = n - 1; t >= 0; t--) {
    choice[t] = last
    if (t > 0) last = back[t - 1]![last]!
  }
  return { choice, cost: total }
}

/** What a join looks at on its first side, and on its second. */
function looks(step: Step): { from: number; to: number } {
  const both =
    (step.holdsMelody || step.melodyAgain ? LOOKS.melody : 0) |
    (step.holdsBass || step.sameChordBass ? LOOKS.bass : 0) |
    (step.holdsInner ? LOOKS.inner : 0) |
    (step.holdsVoicing ? LOOKS.frame : 0)
  return {
    from: both | LOOKS.openOnly | (step.ringsOn ? LOOKS.melody : 0),
    to: both | (step.ringsOn ? LOOKS.planted : 0),
  }
}

function relax(
  a: CandidateSet,
  b: CandidateSet,
  cost: Float64Array,
  next: Float64Array,
  from: Int32Array,
  step: Step,
): void {
  const look = looks(step)
  const order = cheapestOfEach(classesOf(a, look.from), cost)
  const targets = classesOf(b, look.to)
  const price = transitionPricer(a, b, step)
  const held = bucketsOf(a, order, step)
  const buckets = new Map<number, readonly number[]>()
  const least = new Float64Array(targets.member.length)
  const leastFrom = new Int32Array(targets.member.length)
  for (let c = 0; c < least.length; c++) {
    const j = targets.member[c]!
    const melody = step.holdsMelody ? b.melody[j]! : step.ringsOn ? b.planted[j]! : 0
    const bass = step.holdsBass ? b.bass[j]! : 0
    const inner = step.holdsInner ? b.inner[j]! : 0
    const bucket = bucketFor(held, buckets, a, order, step, [melody, bass, inner])
    let best = Infinity
    let bestFrom = -1
    for (let k = 0; k < bucket.length; k++) {
      const i = bucket[k]!
      const so = cost[i]!
      if (so >= best) break
      const total = so + price(i, j)
      if (total < best) {
        best = total
        bestFrom = i
      }
    }
    least[c] = best
    leastFrom[c] = bestFrom
  }
  for (let j = 0; j < next.length; j++) {
    const c = targets.of[j]!
    next[j] = next[j]! + least[c]!
    from[j] = leastFrom[c]!
  }
}

/** The cheapest candidate of each group, cheapest first. */
function cheapestOfEach(classes: CandidateClasses, cost: Float64Array): Int32Array {
  const best = Int32Array.from(classes.member)
  for (let i = 0; i < cost.length; i++) {
    const c = classes.of[i]!
    if (cost[i]! < cost[best[c]!]!) best[c] = i
  }
  return best.sort((x, y) => cost[x]! - cost[y]!)
}

/** Predecessors by all the notes that this step holds over, cheapest first. */
function bucketsOf(a: CandidateSet, order: Int32Array, step: Step): Map<number, number[]> {
  const held = new Map<number, number[]>()
  const byMelody = step.holdsMelody || step.ringsOn
  if (!byMelody && !step.holdsBass && !step.holdsInner) return held
  for (let k = 0; k < order.length; k++) {
    const i = order[k]!
    const key = noteKey(
      byMelody ? a.melody[i]! : 0,
      step.holdsBass ? a.bass[i]! : 0,
      step.holdsInner ? a.inner[i]! : 0,
    )
    const own = held.get(key)
    if (own) own.push(i)
    else held.set(key, [i])
  }
  return held
}

const noteKey = (melody: number, bass: number, inner: number) => (melody * 32768 + bass) * 32768 + inner

/** Predecessors that hold these notes, cheapest first; 0 asks for nothing. */
function bucketFor(
  held: ReadonlyMap<number, readonly number[]>,
  known: Map<number, readonly number[]>,
  a: CandidateSet,
  order: Int32Array,
  step: Step,
  [melody, bass, inner]: readonly [number, number, number],
): ArrayLike<number> {
  const asksAll =
    (melody !== 0 || !(step.holdsMelody || step.ringsOn)) &&
    (bass !== 0 || !step.holdsBass) &&
    (inner !== 0 || !step.holdsInner)
  if (melody === 0 && bass === 0 && inner === 0) return order
  const key = noteKey(melody, bass, inner)
  if (asksAll) return held.get(key) ?? NOBODY
  let bucket = known.get(key)
  if (!bucket) {
    bucket = Array.from(order).filter(
      (i) =>
        (melody === 0 || a.melody[i] === melody) &&
        (bass === 0 || a.bass[i] === bass) &&
        (inner === 0 || a.inner[i] === inner),
    )
    known.set(key, bucket)
  }
  return bucket
}

const NOBODY: readonly number[] = []

function nodeCosts(chain: Chain, t: number): Float64Array {
  const set = chain.sets[t]!
  const beats = chain.beats[t]!
  const extra = chain.extra?.[t]
  const costs = new Float64Array(set.list.length)
  for (let j = 0; j < costs.length; j++)
    costs[j] = set.fixed[j]! + set.perBeat[j]! * beats + (extra ? extra[j]! : 0)
  return costs
}

function cheapest(cost: Float64Array): number {
  let best = 0
  for (let j = 1; j < cost.length; j++) if (cost[j]! < cost[best]!) best = j
  return best
}
