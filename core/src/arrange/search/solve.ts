import { present } from '../../invariant.ts'
import { repeatedItems, type MeasureContent } from '../../document/form/repeated.ts'
import type { Plan } from '../plan/plan.ts'
import { samePlace, type CandidateSet } from './candidate.ts'
import { barreHops, hiddenHops, takesHop, type HiddenHop, type StruckVoices } from './hiddenHops.ts'
import type { Prepared } from './prepare.ts'
import { cheapestPath, type Chain, type Trace } from './shortestPath.ts'
import { mapInTurns, within, type Turns } from '../../turns.ts'
import { stepBetween } from './steps.ts'
import { transitionCost, type Transition } from './transition.ts'
import { WEIGHTS } from './weights.ts'
import type { Requirement } from './requirement.ts'

/** The solved hand: for each slice of the plan the chosen candidate. */
export interface Solution {
  readonly requirements: readonly Requirement[]
  readonly sets: readonly CandidateSet[]
  readonly choice: Int32Array
  /** Cost over the played order, junctions included. */
  readonly cost: number
  /** What joins of the played order and forbidden jumps add to each candidate, the rest of the choice as it is. */
  readonly extra: readonly (Float64Array | undefined)[]
}

/** Price of differing from the first occurrence of a repeated measure: high enough to be decisive. */
const LIKENESS = 40

/** More passes than this have not changed a result in the corpus. */
const MOST_PASSES = 4

/** Passes where fingers had to jump unseen: each pass forbids the jumps of those before it. */
const HOP_PASSES = 6

interface Join {
  readonly from: number
  readonly to: number
  readonly step: Transition
}

/**
 * Finds the left hand of a plan. The first pass is exact over the page's order; later passes add the joins of the
 * played order (a measure entered from two places counts at both) and make measures with equal contents equal (or, on
 * request, different), and the best by the true played cost is kept.
 * @param traces of the passes of an earlier solve, to go on from; replaced by those of this one
 */
export function* solve(
  plan: Plan,
  prepared: Prepared,
  traces: (Trace | undefined)[] = [],
): Generator<number, Solution> {
  const { requirements, sets } = prepared
  const beats = plan.slices.map((s) => s.beats)
  const steps = plan.slices.map((s, t) =>
    t === 0 || isSkipped(plan, t, s.measure) ? undefined : stepBetween(plan, t - 1, t),
  )
  const joins = joinsOf(plan)
  yield 0
  const alike = yield* within(0, alikeSlices(plan, 'alike'))
  const varied = yield* within(0, alikeSlices(plan, 'varied'))
  let best: { choice: Int32Array; cost: number } | undefined
  yield 0
  const unpaired = yield* within(0, withoutTwin(sets, alike))
  yield 0
  let extra = unpaired
  const known: HiddenHop[] = []
  const seconds = plan.slices.map((s) => s.seconds)
  const struck = struckBy(plan, sets)
  let passes = joins.length > 0 || alike.size + varied.size > 0 ? MOST_PASSES : 1
  for (let pass = 0; pass < passes; pass++) {
    const chain: Chain = { sets, beats, steps, ...(extra ? { extra } : {}) }
    const run = cheapestPath(chain, traces[pass] ?? traces[pass - 1])
    let item = run.next()
    while (!item.done) {
      yield (pass + item.value) / passes
      item = run.next()
    }
    const { choice, trace } = item.value
    traces[pass] = trace
    yield (pass + 1) / passes
    const likeness = mapInTurns([...alike], ([t, first]) =>
      isAlike(sets[t]!, choice[t]!, sets[first]!, choice[first]!),
    )
    const differing = (yield* within((pass + 1) / passes, likeness)).filter((same) => !same).length
    yield (pass + 1) / passes
    const hops = [...hiddenHops(sets, choice, seconds), ...barreHops(choice, seconds, struck)]
    if (hops.length > 0) passes = HOP_PASSES
    const same = [...varied].filter(([t, first]) =>
      soundsSame(sets[t]!, choice[t]!, sets[first]!, choice[first]!),
    )
    const cost =
      playedCost(chain, choice, joins) +
      differing * LIKENESS +
      same.length * WEIGHTS.varied +
      hops.length * WEIGHTS.hopTooFast
    known.push(...hops)
    yield Math.min(1, (pass + 1) / passes)
    const better = !best || cost < best.cost - 1e-9
    if (better) best = { choice, cost }
    else if (hops.length === 0) break
    // Nothing to mend: no later pass can cost less than the exact one without its prices.
    if (pass === 0 && joins.length + differing + hops.length + same.length === 0) break
    extra = yield* within((pass + 1) / passes, biases(sets, choice, joins, alike, varied, known, struck))
    yield Math.min(1, (pass + 1) / passes)
    unpaired?.forEach((prices, t) => prices && addTo(present(extra), t, prices))
  }
  yield 1
  const { choice, cost } = present(best)
  const none = new Map<number, number>()
  const further = yield* within(1, biases(sets, choice, joins, none, none, known, struck))
  return { requirements, sets, choice, cost, extra: further }
}

/** True for the first slice of a measure that is never played right after the one before it. */
function isSkipped(plan: Plan, t: number, measure: number): boolean {
  return plan.slices[t - 1]!.measure !== measure && !plan.follows[measure]
}

function joinsOf(plan: Plan): Join[] {
  return plan.junctions.flatMap(({ from, to }) => {
    const first = plan.firstSlice[to]!
    const last = (plan.firstSlice[from + 1] ?? plan.slices.length) - 1
    if (first >= plan.slices.length || last < 0 || last === first - 1) return []
    return [{ from: last, to: first, step: stepBetween(plan, last, first) }]
  })
}

/**
 * Slices of later measures with the same contents as an earlier one, paired with their first occurrence. What rings in
 * from the measure before may differ.
 */
const alikeSlices = (plan: Plan, school: 'alike' | 'varied') => repeatedItems(measuresOf(plan, school))

function* measuresOf(plan: Plan, school: 'alike' | 'varied'): Iterable<MeasureContent> {
  for (let m = 0; m < plan.firstSlice.length; m++) {
    const from = plan.firstSlice[m]!
    const to = plan.firstSlice[m + 1] ?? plan.slices.length
    if (to > from && plan.slices[from]!.school.repeats === school)
      yield { from, to, content: contentOf(plan, m, from, to) }
  }
}

function contentOf(plan: Plan, m: number, from: number, to: number): string {
  const start = plan.timeline.starts[m]!
  let content = ''
  for (let t = from; t < to; t++) {
    const s = plan.slices[t]!
    const bass = plan.bass[s.bass]
    const inner = plan.inner[s.inner]
    content += [
      s.start - start,
      s.style,
      s.level,
      s.barres,
      s.melody < 0 ? '-' : `${plan.melodyMidi[s.melody]!}${s.melodyOnset ? '' : 'h'}`,
      plan.harmony[s.segment]?.symbol,
      bass && s.bass >= 0 ? `${bass.kind}${bass.part?.midi ?? ''}${s.bassOnset ? '' : 'h'}` : '-',
      inner && s.inner >= 0 ? `${inner.kind}${inner.voices}${inner.turn}${s.innerOnset ? '' : 'h'}` : '-',
    ].join()
    content += ';'
  }
  return content
}

/**
 * True where two candidates, of one set or of two, strike and hold the same under the same fingers; what rings in from
 * before does not count.
 */
function isAlike(a: CandidateSet, i: number, b: CandidateSet, j: number): boolean {
  if (a === b && i === j) return true
  const ringsInOtherwise = a !== b || a.planted[i] !== b.planted[j]
  return ringsInOtherwise && voicesOf(a, i) === voicesOf(b, j)
}

const voicesOfSets = new WeakMap<CandidateSet, readonly string[]>()

/** What a candidate strikes and holds, in a few characters; sets serve many searches. */
function voicesOf(set: CandidateSet, i: number): string {
  let known = voicesOfSets.get(set)
  if (!known) {
    known = set.list.map((c, k) => [set.melody[k], set.bass[k], set.inner[k], c.chord.join()].join())
    voicesOfSets.set(set, known)
  }
  return known[i]!
}

/** Prices for candidates of paired slices that the other slice does not have: they could never be alike. */
function* withoutTwin(
  sets: readonly CandidateSet[],
  alike: ReadonlyMap<number, number>,
): Turns<(Float64Array | undefined)[] | undefined> {
  let prices: (Float64Array | undefined)[] | undefined
  const charge = (t: number, other: number) => {
    const known = new Set(sets[other]!.list.map((_, j) => voicesOf(sets[other]!, j)))
    prices ??= sets.map(() => undefined)
    const here = (prices[t] ??= new Float64Array(sets[t]!.list.length))
    for (let j = 0; j < here.length; j++) if (!known.has(voicesOf(sets[t]!, j))) here[j]! += LIKENESS
  }
  let turn = 0
  for (const [t, first] of alike) {
    if (sets[t] === sets[first]) continue
    if (++turn % 64 === 0) yield
    charge(t, first)
    charge(first, t)
  }
  return prices
}

function* biases(
  sets: readonly CandidateSet[],
  choice: Int32Array,
  joins: readonly Join[],
  alike: ReadonlyMap<number, number>,
  varied: ReadonlyMap<number, number>,
  hops: readonly HiddenHop[],
  struck: StruckVoices,
): Turns<(Float64Array | undefined)[]> {
  const extra: (Float64Array | undefined)[] = sets.map(() => undefined)
  const at = (t: number) => (extra[t] ??= new Float64Array(sets[t]!.list.length))
  for (const { from, to, step } of joins) {
    const into = at(to)
    for (let j = 0; j < into.length; j++)
      into[j]! += transitionCost(sets[from]!, choice[from]!, sets[to]!, j, step)
    const out = at(from)
    for (let i = 0; i < out.length; i++)
      out[i]! += transitionCost(sets[from]!, i, sets[to]!, choice[to]!, step)
  }
  let turn = 0
  for (const [t, first] of alike) {
    if (++turn % 256 === 0) yield
    const here = at(t)
    for (let j = 0; j < here.length; j++)
      if (!isAlike(sets[t]!, j, sets[first]!, choice[first]!)) here[j]! += LIKENESS
    const there = at(first)
    for (let j = 0; j < there.length; j++)
      if (!isAlike(sets[first]!, j, sets[first]!, choice[first]!)) there[j]! += LIKENESS
  }
  for (const [t, first] of varied) {
    const here = at(t)
    for (let j = 0; j < here.length; j++)
      if (soundsSame(sets[t]!, j, sets[first]!, choice[first]!)) here[j]! += WEIGHTS.varied
  }
  for (const hop of hops) {
    const here = at(hop.slice)
    for (let j = 0; j < here.length; j++)
      if (takesHop(hop, sets[hop.slice]!, j, struck)) here[j]! += WEIGHTS.hopTooFast
  }
  return extra
}

function addTo(extra: (Float64Array | undefined)[], t: number, prices: Float64Array): void {
  const here = extra[t]
  if (here) prices.forEach((price, j) => (here[j]! += price))
  else extra[t] = prices
}

/** The notes that each candidate strikes: voices that are held over are not struck. */
function struckBy(plan: Plan, sets: readonly CandidateSet[]): StruckVoices {
  return (t, j) => {
    const { melodyOnset, bassOnset, innerOnset } = plan.slices[t]!
    const c = sets[t]!.list[j]!
    const keys = [melodyOnset ? c.melody : 0, bassOnset ? c.bass : 0, innerOnset ? c.inner : 0, ...c.chord]
    return keys.filter((key) => key !== 0)
  }
}

/** True where every voice lies at the same place. */
function soundsSame(a: CandidateSet, i: number, b: CandidateSet, j: number): boolean {
  return (
    samePlace(a.melody[i]!, b.melody[j]!) &&
    samePlace(a.bass[i]!, b.bass[j]!) &&
    samePlace(a.inner[i]!, b.inner[j]!) &&
    a.list[i]!.chord.join() === b.list[j]!.chord.join()
  )
}

function playedCost(chain: Chain, choice: Int32Array, joins: readonly Join[]): number {
  let cost = 0
  for (let t = 0; t < chain.sets.length; t++) {
    const set = chain.sets[t]!
    const j = choice[t]!
    cost += set.fixed[j]! + set.perBeat[j]! * chain.beats[t]!
    const step = chain.steps[t]
    if (step) cost += transitionCost(chain.sets[t - 1]!, choice[t - 1]!, set, j, step)
  }
  for (const { from, to, step } of joins) {
    cost += transitionCost(chain.sets[from]!, choice[from]!, chain.sets[to]!, choice[to]!, step)
  }
  return cost
}
