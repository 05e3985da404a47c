import { present } from '../../invariant.ts'
import type { CandidateClasses, CandidateSet } from './candidate.ts'
import { classesOf, LOOKS } from './candidateClasses.ts'
import { predecessorsOf } from './predecessors.ts'
import { transitionPricer, positionChangePricer, type Transition } from './transition.ts'

/** A chain of slices to be solved. `steps[t]` joins slice t−1 to t; undefined where nothing is played across. */
export interface Chain {
  readonly sets: readonly CandidateSet[]
  readonly beats: readonly number[]
  readonly steps: readonly (Transition | undefined)[]
  /** Further prices by slice and candidate: joins of the played order, likeness of repeated measures. */
  readonly extra?: readonly (Float64Array | undefined)[]
}

export interface Path {
  readonly choice: Int32Array
  readonly cost: number
  readonly trace: Trace
}

/** What a search found on its way: a later search of an almost equal chain goes on from it. */
export interface Trace {
  readonly chain: Chain
  /** Cost of the cheapest path to each candidate, less `base`. */
  readonly costs: readonly Float64Array[]
  readonly base: Float64Array
  readonly back: readonly Int32Array[]
}

/**
 * The cheapest choice of one candidate a slice: dynamic programming, exact over the candidates.
 * Candidates that a join cannot tell apart are tried once; predecessors are sorted by the notes that must be held and by
 * where the hand stands, and tried in order of cost; as a transition never costs less than its way along the neck, the
 * search of each lot ends as soon as cost and way alone exceed the best found. With a trace of an earlier search, slices whose own prices, join and incoming
 * costs are the same but for a constant are taken from it: exact too.
 * A generator: yields the share done now and then, so that a caller can show progress or stop.
 */
export function* cheapestPath(chain: Chain, before?: Trace): Generator<number, Path> {
  const n = chain.sets.length
  const back: Int32Array[] = []
  const costs: Float64Array[] = []
  const base = new Float64Array(n)
  // True while the costs that come in are those of the trace, but for a constant.
  let coupled = true
  for (let t = 0; t < n; t++) {
    if (t % 16 === 0) yield t / n
    const same = before !== undefined && t < before.costs.length && sameSlice(chain, before.chain, t)
    if (same && (t === 0 || coupled)) {
      costs.push(before.costs[t]!)
      back.push(before.back[t]!)
      base[t] = before.base[t]! + (t === 0 ? 0 : base[t - 1]! - before.base[t - 1]!)
      continue
    }
    const next = nodeCosts(chain, t)
    const from = new Int32Array(next.length)
    if (t > 0) {
      const step = chain.steps[t]
      const cost = costs[t - 1]!
      if (step) relax(chain.sets[t - 1]!, chain.sets[t]!, cost, next, from, step)
      else {
        const first = cheapest(cost)
        for (let j = 0; j < next.length; j++) next[j] = next[j]! + cost[first]!
        from.fill(first)
      }
    }
    const least = next[cheapest(next)] ?? 0
    for (let j = 0; j < next.length; j++) next[j] = next[j]! - least
    base[t] = least + (t === 0 ? 0 : base[t - 1]!)
    const known = before?.chain.sets[t] === chain.sets[t] ? before?.costs[t] : undefined
    coupled = known !== undefined && equalCosts(next, known)
    // The trace's own array keeps the next comparison exact.
    costs.push(coupled ? present(known) : next)
    back.push(from)
  }
  const choice = new Int32Array(n)
  let last = n > 0 ? cheapest(costs[n - 1]!) : 0
  const total = n > 0 ? costs[n - 1]![last]! + base[n - 1]! : 0
  for (let t = n - 1; t >= 0; t--) {
    choice[t] = last
    last = back[t]![last]!
  }
  return { choice, cost: total, trace: { chain, costs, base, back } }
}

/** Sums of the same prices in another order differ by less than this. */
const ROUNDING = 1e-9

function equalCosts(a: Float64Array, b: Float64Array): boolean {
  for (let j = 0; j < a.length; j++) if (Math.abs(a[j]! - b[j]!) > ROUNDING) return false
  return true
}

/** True where a slice and the join into it are priced alike in two chains. */
function sameSlice(a: Chain, b: Chain, t: number): boolean {
  if (a.sets[t] !== b.sets[t] || a.beats[t] !== b.beats[t]) return false
  if (t > 0 && a.sets[t - 1] !== b.sets[t - 1]) return false
  return sameStep(a.steps[t], b.steps[t]) && sameExtra(a.extra?.[t], b.extra?.[t])
}

function sameStep(a: Transition | undefined, b: Transition | undefined): boolean {
  if (a === b) return true
  if (!a || !b) return false
  return (Object.keys(a) as (keyof Transition)[]).every((k) => a[k] === b[k])
}

function sameExtra(a: Float64Array | undefined, b: Float64Array | undefined): boolean {
  if (a === b) return true
  if (a && b) return a.every((price, j) => price === b[j])
  return present(a ?? b).every((price) => price === 0)
}

/** What a join looks at on its first side, and on its second. */
function looks(step: Transition): { from: number; to: number } {
  const both =
    (step.holdsMelody || step.melodyAgain || step.slurPrice + step.upstrokePrice + step.stepOffOpenPrice > 0
      ? LOOKS.melody
      : 0) |
    (step.holdsBass || step.sameChordBass ? LOOKS.bass : 0) |
    (step.holdsInner || step.fillAgainPrice + step.secondLeapPrice > 0 ? LOOKS.inner : 0) |
    (step.holdsVoicing ? LOOKS.heldShape : 0) |
    (step.revoices || step.ledTone !== 0 ? LOOKS.lower : 0)
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
  step: Transition,
): void {
  const look = looks(step)
  const order = cheapestOfEach(classesOf(a, look.from), cost)
  const targets = classesOf(b, look.to)
  const price = transitionPricer(a, b, step)
  const shiftPrice = positionChangePricer(step)
  const before = predecessorsOf(a, b, order, step)
  const least = new Float64Array(targets.member.length)
  const leastFrom = new Int32Array(targets.member.length)
  for (let c = 0; c < least.length; c++) {
    const j = targets.member[c]!
    const mm = b.positionMm[j]!
    const groups = before(j)
    let best = Infinity
    let bestFrom = -1
    // Those that need not travel come first: the better the first found, the sooner the rest is given up.
    for (let far = 0; far < 2; far++)
      for (let s = 0; s < groups.length; s++) {
        const group = groups[s]!
        if ((group.mm === mm) === (far === 1)) continue
        // Its first is its cheapest: where that alone is too dear, so are they all.
        if (cost[group.members[0]!]! >= best) continue
        const way = shiftPrice(Math.abs(group.mm - mm), group.openOnly, step.melodyAgain)
        const { members } = group
        for (let k = 0; k < members.length; k++) {
          const i = members[k]!
          const so = cost[i]!
          if (so + way >= best) break
          const total = so + price(i, j, best - so)
          if (total < best) {
            best = total
            bestFrom = i
          }
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
