import { MOST_TASTE_PRICE, TASTE_FEATURES, type TasteFeature, type TastePrices } from '../document/taste.ts'
import type { Case, Comparison, WayComparison } from './comparison.ts'

/** What was made out of comparisons. */
export interface TasteFit {
  readonly prices: TastePrices
  /** How sure each price is: its size over its standard deviation. */
  readonly sureness: Readonly<Partial<Record<TasteFeature, number>>>
  readonly comparisons: number
  /** Comparisons in which the taken way is the cheapest, of all offered but the one that was turned down: by the house, and with these prices. */
  readonly agrees: { readonly house: number; readonly taste: number }
}

/**
 * Prior of each parameter: its mean and standard deviation. `scale` is how closely somebody keeps to the house's prices; `stay` how
 * loath they are to change what stands. No source.
 */
const PRIOR = {
  scale: { mean: 0.3, deviation: 1 },
  stay: { mean: 0, deviation: 3 },
  feature: { mean: 0, deviation: 3 },
} as const
const LEAST_SCALE = 0.02

/** Twice the gain in log likelihood that a feature must bring: about one chance in four hundred where there is nothing (chi square, one degree of freedom). */
const LEAST_GAIN = 9

/**
 * What a feature must bring from somebody who plainly weighs what the house weighs: nobody does that by chance, and less is
 * needed to believe them.
 */
const LEAST_GAIN_OF_CONSISTENT = 4.5
/** How sure it must be that somebody keeps to the house's prices: deviations of the scale. */
const CONSISTENT = 3

const leastGain = ({ at, deviations }: Solved): number =>
  at[0]! / deviations[0]! >= CONSISTENT ? LEAST_GAIN_OF_CONSISTENT : LEAST_GAIN

/** Steps of Newton's method; fewer are needed. */
const MOST_STEPS = 30

/**
 * Fits prices to what was taken over what: a multinomial logistic choice among the ways that were offered, over the house's price of
 * each and its features, with a prior at the house's own prices. A feature is taken in only where it explains the choices much better
 * (forward selection), so that somebody without a taste keeps the house's prices. The order of comparisons does not matter.
 */
export function fitTaste(comparisons: readonly Comparison[]): TasteFit {
  const usable = comparisons.filter((c) => c.kind === 'way')
  let chosen: number[] = []
  let fitted = solved(usable, chosen)
  while (chosen.length < TASTE_FEATURES.length) {
    const next = [...chosen, mostTelling(usable, chosen, fitted)].sort((a, b) => a - b)
    const fit = solved(usable, next)
    if (2 * (fitted.loss - fit.loss) < leastGain(fitted)) break
    chosen = next
    fitted = fit
  }
  const together = severalAtOnce(usable, chosen, fitted)
  if (together) ({ chosen, fitted } = together)
  const scale = fitted.at[0]!
  const prices: Partial<Record<TasteFeature, number>> = {}
  const sureness: Partial<Record<TasteFeature, number>> = {}
  chosen.forEach((f, i) => {
    const name = TASTE_FEATURES[f]!
    const price = fitted.at[2 + i]! / scale
    prices[name] = Math.max(-MOST_TASTE_PRICE, Math.min(MOST_TASTE_PRICE, price))
    sureness[name] = Math.abs(fitted.at[2 + i]!) / fitted.deviations[2 + i]!
  })
  const leftOut = onePerPlace(comparisons.flatMap((c) => (c.kind === 'leftOut' ? [c.at] : []))).length
  if (prices.fill === undefined && leftOut >= LEFT_OUT.cases) {
    prices.fill = LEFT_OUT.price
    sureness.fill = Math.sqrt(leftOut)
  }
  return {
    prices,
    sureness,
    comparisons: comparisons.length,
    agrees: { house: agreeing(usable, {}), taste: agreeing(usable, prices) },
  }
}

/** Twice the loss in log likelihood that a feature may leave behind where it goes (chi square, one degree of freedom, one in twenty). */
const LEAST_WORTH = 3.84

/**
 * Features of which none says much alone and that together explain the choices: all are taken in where that gains more than chance would in one
 * case of five hundred (chi square, by Wilson and Hilferty's approximation, from memory), then those that say nothing go, one by one.
 */
function severalAtOnce(
  comparisons: readonly WayComparison[],
  chosen: readonly number[],
  fitted: Solved,
): { chosen: number[]; fitted: Solved } | undefined {
  let features = TASTE_FEATURES.map((_, f) => f)
  let all = solved(comparisons, features)
  const k = features.length - chosen.length
  const chance = k * (1 - 2 / (9 * k) + 2.878 * Math.sqrt(2 / (9 * k))) ** 3
  if (k === 0 || 2 * (fitted.loss - all.loss) < chance) return undefined
  while (features.length > 0) {
    const sure = features.map((_, k) => Math.abs(all.at[2 + k]!) / all.deviations[2 + k]!)
    const fewer = features.toSpliced(sure.indexOf(Math.min(...sure)), 1)
    const fit = solved(comparisons, fewer)
    if (2 * (fit.loss - all.loss) > LEAST_WORTH) break
    features = fewer
    all = fit
  }
  return { chosen: features, fitted: all }
}

/** Fills that must have been taken out before they are dear: and how dear, which is more than a fill left out costs. No source. */
const LEFT_OUT = { cases: 3, price: 5 }

/** Cases at different places. */
export function onePerPlace(cases: readonly Case[]): Case[] {
  return [...new Map(cases.map((c) => [`${c.tune} ${c.measure}`, c])).values()]
}

/** How many comparisons some prices explain: the taken way is the cheapest of those that were taken or passed by. */
function agreeing(comparisons: readonly WayComparison[], prices: TastePrices): number {
  const costOf = ({ ways }: WayComparison, k: number) =>
    TASTE_FEATURES.reduce((sum, f, i) => sum + (prices[f] ?? 0) * ways[k]!.counts[i]!, ways[k]!.price)
  return comparisons.filter((c) => {
    const own = costOf(c, c.taken)
    return c.ways.every((_, k) => k === 0 || costOf(c, k) >= own - 1e-9)
  }).length
}

interface Solved {
  /** Scale, stay, then the features. */
  readonly at: readonly number[]
  readonly deviations: readonly number[]
  readonly loss: number
}

/**
 * The feature that would explain most beside those that were taken in: by the slope and the curve of the loss where it is not priced yet (a score
 * test), which is one look at the choices for all features.
 */
function mostTelling(
  comparisons: readonly WayComparison[],
  chosen: readonly number[],
  { at }: Solved,
): number {
  const others = TASTE_FEATURES.flatMap((_, f) => (chosen.includes(f) ? [] : [f]))
  const all = [...chosen, ...others]
  const known = 2 + chosen.length
  const here = [...at, ...others.map(() => 0)]
  const { gradient, hessian } = slopesAt(rowsOf(comparisons, all), comparisons, here)
  const inner = hessian.slice(0, known).map((row) => row.slice(0, known))
  const gains = others.map((_, k) => {
    const i = known + k
    const beside = hessian[i]!.slice(0, known)
    const curve = hessian[i]![i]! - dot(beside, solveLinear(inner, beside))
    return gradient[i]! ** 2 / curve
  })
  return others[gains.indexOf(Math.max(...gains))]!
}

const priorsOf = (features: number) => [
  PRIOR.scale,
  PRIOR.stay,
  ...Array.from({ length: features }, () => PRIOR.feature),
]

/** Each offered way against the one that stood there: price, standing, features. */
const rowsOf = (comparisons: readonly WayComparison[], features: readonly number[]): number[][][] =>
  comparisons.map((c) =>
    c.ways.map((way, k) => [
      way.price - c.ways[0]!.price,
      k === 0 ? -1 : 0,
      ...features.map((f) => way.counts[f]! - c.ways[0]!.counts[f]!),
    ]),
  )

/** Slope and curve of the penalised log loss. */
function slopesAt(
  rows: readonly (readonly (readonly number[])[])[],
  comparisons: readonly WayComparison[],
  at: readonly number[],
): { gradient: number[]; hessian: number[][] } {
  const priors = priorsOf(at.length - 2)
  const gradient = priors.map((p, i) => (at[i]! - p.mean) / p.deviation ** 2)
  const hessian = emptyMatrix(at.length)
  priors.forEach((p, i) => (hessian[i]![i]! += 1 / p.deviation ** 2))
  rows.forEach((ways, c) => addChoice(ways, comparisons[c]!.taken, at, gradient, hessian))
  return { gradient, hessian }
}

/** Newton's method on the penalised log loss: it is convex, a step that overshoots is halved. */
function solved(comparisons: readonly WayComparison[], features: readonly number[]): Solved {
  const priors = priorsOf(features.length)
  const rows = rowsOf(comparisons, features)
  const lossAt = (at: readonly number[]): number => {
    let loss = priors.reduce((sum, p, i) => sum + ((at[i]! - p.mean) / p.deviation) ** 2 / 2, 0)
    rows.forEach((ways, c) => {
      const costs = ways.map((z) => dot(z, at))
      const least = Math.min(...costs)
      const total = costs.reduce((sum, x) => sum + Math.exp(least - x), 0)
      loss += costs[comparisons[c]!.taken]! - least + Math.log(total)
    })
    return loss
  }
  let at: number[] = priors.map((p) => p.mean)
  let loss = lossAt(at)
  let hessian = emptyMatrix(at.length)
  for (let step = 0; step < MOST_STEPS; step++) {
    const slopes = slopesAt(rows, comparisons, at)
    const { gradient } = slopes
    hessian = slopes.hessian
    const towards = solveLinear(hessian, gradient)
    let share = 1
    let next = at
    let nextLoss = loss
    for (; share > 1e-6; share /= 2) {
      next = at.map((x, i) => x - share * towards[i]!)
      next[0] = Math.max(LEAST_SCALE, next[0]!)
      nextLoss = lossAt(next)
      if (nextLoss < loss) break
    }
    if (!(nextLoss < loss - 1e-10)) break
    at = next
    loss = nextLoss
  }
  const deviations = at.map((_, i) =>
    Math.sqrt(
      solveLinear(
        hessian,
        at.map((__, k) => (k === i ? 1 : 0)),
      )[i]!,
    ),
  )
  return { at, deviations, loss }
}

function addChoice(
  ways: readonly (readonly number[])[],
  taken: number,
  at: readonly number[],
  gradient: number[],
  hessian: number[][],
): void {
  const costs = ways.map((z) => dot(z, at))
  const least = Math.min(...costs)
  const shares = costs.map((x) => Math.exp(least - x))
  const total = shares.reduce((a, b) => a + b, 0)
  const mean = at.map((_, i) => ways.reduce((sum, z, k) => sum + (shares[k]! / total) * z[i]!, 0))
  for (let i = 0; i < at.length; i++) {
    gradient[i]! += ways[taken]![i]! - mean[i]!
    for (let j = 0; j < at.length; j++)
      hessian[i]![j]! +=
        ways.reduce((sum, z, k) => sum + (shares[k]! / total) * z[i]! * z[j]!, 0) - mean[i]! * mean[j]!
  }
}

const dot = (a: readonly number[], b: readonly number[]) => a.reduce((sum, x, i) => sum + x * b[i]!, 0)

const emptyMatrix = (n: number): number[][] => Array.from({ length: n }, () => new Array<number>(n).fill(0))

/** Solves a small symmetric system by elimination with the largest pivot. */
function solveLinear(matrix: readonly (readonly number[])[], right: readonly number[]): number[] {
  const n = right.length
  const rows = matrix.map((row, i) => [...row, right[i]!])
  for (let i = 0; i < n; i++) {
    let pivot = i
    for (let k = i + 1; k < n; k++) if (Math.abs(rows[k]![i]!) > Math.abs(rows[pivot]![i]!)) pivot = k
    const row = rows[pivot]!
    rows[pivot] = rows[i]!
    rows[i] = row
    for (let k = 0; k < n; k++) {
      if (k === i) continue
      const share = rows[k]![i]! / row[i]!
      for (let j = i; j <= n; j++) rows[k]![j]! -= share * row[j]!
    }
  }
  return rows.map((row, i) => row[n]! / row[i]!)
}
