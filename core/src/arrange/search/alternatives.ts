import { knownIn } from '../../invariant.ts'
import { effortOf } from '../../hand/effort/effort.ts'
import { ticksAt } from '../../document/form/timeline.ts'
import { placeAndFinger, type NewLock } from '../../document/locks.ts'
import type { CostTerm, Grip, TabNote } from '../../document/tab.ts'
import type { Id } from '../../document/ids.ts'
import type { TuneDoc } from '../../document/tune.ts'
import type { Setup } from '../../instrument/setup.ts'
import { countsOf, type TasteCounts } from '../../taste/momentCounts.ts'
import type { Plan } from '../plan/plan.ts'
import type { Candidate, CandidateSet } from './candidate.ts'
import { generate } from './generate.ts'
import { costsOfChoice, layerOfSlices } from './layerOf.ts'
import type { Solution } from './solve.ts'
import { stepBetween } from './steps.ts'
import { transitionPricer } from './transition.ts'
import { mayFollow, pathsThrough } from './window.ts'

/** A cost term of the other way, less that of the chosen one, summed over what moves. */
export interface TermChange extends CostTerm {
  readonly before: number
  readonly after: number
}

/** Another way to play some slices. */
export interface Alternative {
  /** What it costs more than the chosen way, in the solver's unit; least first. */
  readonly extra: number
  readonly changes: readonly TermChange[]
  readonly effort: { readonly before: number; readonly after: number }
  /** Notes of the target that lie or are fingered otherwise, as they would be. */
  readonly notes: readonly TabNote[]
  /** The same, with what moves outside the target; and every grip that differs. */
  readonly moved: readonly TabNote[]
  readonly grips: readonly Grip[]
  /** Notes outside the target that move with it, by measure index. */
  readonly alsoMoves: readonly { readonly measure: number; readonly notes: number }[]
  /** What a taste sees in the notes around, as they are and as they would be. */
  readonly counts: { readonly before: TasteCounts; readonly after: TasteCounts }
  /** What keeps it: locks of place and finger for each note that differs. */
  readonly locks: readonly NewLock[]
}

/** Slices on either side of the target that may move with it. */
const REACH = 6

/** Ways dearer than this are no help to anybody. */
const MOST_EXTRA = 60

/**
 * The next-best ways to play the slices from `from` to `to` (exclusive): really different in place or finger, cheapest
 * first, each with what it changes. Exact within the window of slices around the target; what lies outside stays.
 * @param most how many are wanted
 */
export function alternativesFor(
  tune: TuneDoc,
  setup: Setup,
  plan: Plan,
  solution: Solution,
  { from, to }: { readonly from: number; readonly to: number },
  most = 4,
): Alternative[] {
  const first = Math.max(0, from - REACH)
  const end = Math.min(plan.slices.length, to + REACH)
  const sets = solution.sets.slice()
  const choice = solution.choice.slice()
  for (let t = from; t < to; t++) {
    const full = withEveryFill(setup, solution, t)
    sets[t] = full.set
    choice[t] = full.choice
  }
  const window = priced(plan, solution, sets, choice, first, end)
  const ways = pathsThrough(window)
  const chosen = { ...solution, sets, choice }
  const least = ways.least[from - first]![choice[from]!]!
  const seen = new Set([soundOf(plan, sets, choice, from, to)])
  const tries: { t: number; j: number; cost: number }[] = []
  for (let t = from; t < to; t++)
    ways.least[t - first]!.forEach((cost, j) => {
      if (j !== choice[t] && cost - least < MOST_EXTRA) tries.push({ t, j, cost })
    })
  tries.sort((a, b) => a.cost - b.cost)
  const found: Alternative[] = []
  const voices = voicesOf(plan, sets, choice, from, to)
  for (const { t, j, cost } of tries) {
    if (found.length >= most) break
    const way = ways.wayOf(t - first, j)
    const other = choice.slice()
    way.forEach((c, k) => (other[first + k] = c))
    const sound = soundOf(plan, sets, other, from, to)
    if (seen.has(sound)) continue
    seen.add(sound)
    // A way that leaves a note out is an easier version, not another fingering.
    if (voicesOf(plan, sets, other, from, to) < voices) continue
    const extra = Math.max(0, cost - least)
    found.push(
      described(tune, setup, plan, chosen, { ...chosen, choice: other }, { from, to, first, end }, extra),
    )
  }
  return found
}

/** The candidates of a slice with every fill that a hand could strike, and the chosen one among them. */
function withEveryFill(setup: Setup, solution: Solution, t: number): { set: CandidateSet; choice: number } {
  const set = solution.sets[t]!
  const requirement = solution.requirements[t]!
  const own = set.list[solution.choice[t]!]!
  if (requirement.inner?.kind !== 'fill' || !requirement.inner.onset)
    return { set, choice: solution.choice[t]! }
  const full = generate(setup, requirement, true)
  const at = full.list.findIndex((c) => sameCandidate(c, own))
  return at < 0 ? { set, choice: solution.choice[t]! } : { set: full, choice: at }
}

function sameCandidate(a: Candidate, b: Candidate): boolean {
  return (
    a.melody === b.melody &&
    a.bass === b.bass &&
    a.inner === b.inner &&
    a.planted === b.planted &&
    a.heldShape === b.heldShape &&
    a.position === b.position &&
    a.fixed === b.fixed &&
    a.pressed.length === b.pressed.length &&
    a.pressed.every((p, i) => p.string === b.pressed[i]!.string && p.finger === b.pressed[i]!.finger)
  )
}

function priced(
  plan: Plan,
  solution: Solution,
  sets: readonly CandidateSet[],
  choice: Int32Array,
  first: number,
  end: number,
) {
  const stepInto = (t: number) =>
    t > 0 &&
    t < plan.slices.length &&
    (plan.slices[t - 1]!.measure === plan.slices[t]!.measure || plan.follows[plan.slices[t]!.measure])
      ? stepBetween(plan, t - 1, t)
      : undefined
  const own: Float64Array[] = []
  for (let t = first; t < end; t++) {
    const set = sets[t]!
    const extra = set === solution.sets[t] ? solution.extra[t] : undefined
    const prices = new Float64Array(set.list.length)
    for (let j = 0; j < prices.length; j++)
      prices[j] = set.fixed[j]! + set.perBeat[j]! * plan.slices[t]!.beats + (extra?.[j] ?? 0)
    own.push(prices)
  }
  const into = stepInto(first)
  if (into) {
    const price = transitionPricer(sets[first - 1]!, sets[first]!, into)
    own[0]!.forEach((cost, j) => {
      const kept = mayFollow(sets[first - 1]!, choice[first - 1]!, sets[first]!, j, into)
      own[0]![j] = kept ? cost + price(choice[first - 1]!, j, Infinity) : Infinity
    })
  }
  const out = stepInto(end)
  if (out) {
    const last = own.at(-1)!
    const price = transitionPricer(sets[end - 1]!, sets[end]!, out)
    last.forEach((cost, i) => {
      const kept = mayFollow(sets[end - 1]!, i, sets[end]!, choice[end]!, out)
      last[i] = kept ? cost + price(i, choice[end]!, Infinity) : Infinity
    })
  }
  const steps = Array.from({ length: end - first }, (_, k) => (k === 0 ? undefined : stepInto(first + k)))
  return { sets: sets.slice(first, end), own, steps }
}

type Cut = { from: number; to: number; first: number; end: number }

function described(
  tune: TuneDoc,
  setup: Setup,
  plan: Plan,
  chosen: Solution,
  other: Solution,
  { from, to, first, end }: Cut,
  extra: number,
): Alternative {
  const before = layerOfSlices(plan, chosen, tune, setup, first, end)
  const after = layerOfSlices(plan, other, tune, setup, first, end)
  const known = new Map<Id, TabNote>(before.notes.map((n) => [n.id, n]))
  const moved = after.notes.filter((n) => !known.has(n.id) || movesNote(knownIn(known, n.id), n))
  const start = plan.slices[from]!.start
  const stop = plan.slices[to - 1]!.end
  const isTarget = (n: TabNote) => {
    const at = ticksAt(plan.timeline, n.pos)
    return at >= start && at < stop
  }
  const also = new Map<number, number>()
  for (const n of moved) {
    if (isTarget(n)) continue
    const m = knownIn(plan.timeline.indexOf, n.pos.measure)
    also.set(m, (also.get(m) ?? 0) + 1)
  }
  const measures = new Set(plan.slices.slice(first, end).map((s) => s.measure))
  const effort = (layer: typeof before) =>
    effortOf(tune, setup, layer, plan.timeline).reduce(
      (sum, e) => sum + (measures.has(e.measure) ? e.effort : 0),
      0,
    )
  return {
    extra,
    changes: termChanges(plan, setup, chosen, other, first, Math.min(plan.slices.length, end + 1)),
    effort: { before: effort(before), after: effort(after) },
    notes: moved.filter(isTarget),
    moved,
    grips: after.grips,
    counts: {
      before: countsOf(before.notes, plan.timeline, setup.instrument.strings),
      after: countsOf(after.notes, plan.timeline, setup.instrument.strings),
    },
    alsoMoves: [...also].map(([measure, notes]) => ({ measure, notes })),
    locks: moved.filter(isTarget).flatMap(placeAndFinger),
  }
}

const movesNote = (a: TabNote, b: TabNote) =>
  a.place.string !== b.place.string ||
  a.place.fret !== b.place.fret ||
  a.place.harmonic !== b.place.harmonic ||
  a.left !== b.left

/** Places and fingers of all that is struck in some slices, as one text. */
function soundOf(
  plan: Plan,
  sets: readonly CandidateSet[],
  choice: Int32Array,
  from: number,
  to: number,
): string {
  let text = ''
  for (let t = from; t < to; t++) text += `${struckKeys(plan, sets, choice, t).join()};`
  return text
}

const voicesOf = (
  plan: Plan,
  sets: readonly CandidateSet[],
  choice: Int32Array,
  from: number,
  to: number,
) => {
  let n = 0
  for (let t = from; t < to; t++) n += struckKeys(plan, sets, choice, t).filter((k) => k !== 0).length
  return n
}

function struckKeys(plan: Plan, sets: readonly CandidateSet[], choice: Int32Array, t: number): number[] {
  const slice = plan.slices[t]!
  const c = sets[t]!.list[choice[t]!]!
  return [
    slice.melodyOnset ? c.melody : 0,
    slice.bassOnset ? c.bass : 0,
    slice.innerOnset ? c.inner : 0,
    ...c.chord,
  ]
}

function termChanges(
  plan: Plan,
  setup: Setup,
  chosen: Solution,
  other: Solution,
  from: number,
  to: number,
): TermChange[] {
  const sums = new Map<
    string,
    { before: number; after: number; quantity?: number; unit?: CostTerm['unit'] }
  >()
  const add = (solution: Solution, side: 'before' | 'after') => {
    for (let t = from; t < to; t++)
      for (const term of costsOfChoice(plan, solution, setup, t, (s) => solution.choice[s]!)) {
        const sum = sums.get(term.term) ?? { before: 0, after: 0 }
        const quantity = side === 'after' ? Math.max(sum.quantity ?? 0, term.quantity ?? 0) : sum.quantity
        sums.set(term.term, {
          ...sum,
          [side]: sum[side] + term.cost,
          ...(quantity ? { quantity } : {}),
          ...(term.unit ? { unit: term.unit } : {}),
        })
      }
  }
  add(chosen, 'before')
  add(other, 'after')
  return [...sums]
    .map(([term, { before, after, quantity, unit }]) => ({
      term,
      cost: after - before,
      before,
      after,
      ...(quantity === undefined ? {} : { quantity }),
      ...(unit ? { unit } : {}),
    }))
    .filter((c) => Math.abs(c.cost) > 0.05)
    .sort((a, b) => b.cost - a.cost)
}
