import { knownIn } from '../../invariant.ts'
import type { FitOption } from './fitSweep.ts'
import { HIGHEST_CAPO } from '../simplify/stretchByCapo.ts'

/** What may matter, by plain names. */
export const PRIORITIES = [
  'easy',
  'smallStretch',
  'noBarre',
  'openRoots',
  'melodyRoom',
  'nearKey',
  'singer',
  'lowCapo',
  'littleRetuning',
] as const
export type Priority = (typeof PRIORITIES)[number]

/** How much each matters: 0 not at all, 1 a little, 2 as usual, 3 most. */
export type Preferences = Readonly<Record<Priority, 0 | 1 | 2 | 3>>

export const USUAL_PREFERENCES: Preferences = {
  easy: 2,
  smallStretch: 1,
  noBarre: 1,
  openRoots: 2,
  melodyRoom: 2,
  nearKey: 2,
  singer: 3,
  lowCapo: 1,
  littleRetuning: 2,
}

/**
 * What each priority holds against an option, in points of effort; 0 is as good as can be. Listening and common practice, no
 * source.
 */
export function complaints(option: FitOption): Readonly<Record<Priority, number>> {
  const { figures, choice, distance, retuned, sung, beyond } = option
  return {
    easy: figures.effort + figures.hardest.effort / 4,
    smallStretch: figures.stretch.mm / 30,
    noBarre: figures.barres / 10,
    openRoots: figures.changes === 0 ? 0 : 4 * (1 - figures.openRoots / figures.changes),
    melodyRoom: beyond,
    nearKey: distance * 0.7,
    singer: sung ? (12 * sung.outside.length) / Math.max(1, sung.notes) : 0,
    lowCapo: choice.capo * 0.25 + (choice.capo > HIGHEST_CAPO ? 3 : 0),
    littleRetuning: retuned.length * 0.7,
  }
}

/** The complaints of an option, weighed. Lower is better. */
export function weigh(option: FitOption, preferences: Preferences): number {
  const all = complaints(option)
  return PRIORITIES.reduce((sum, priority) => sum + (all[priority] * preferences[priority]) / 2, 0)
}

/** The options, best first; ties go to the one nearer to the wanted key, then to the lower capo. */
export function ranked(options: readonly FitOption[], preferences: Preferences): FitOption[] {
  const cost = new Map(options.map((o) => [o.id, weigh(o, preferences)]))
  return [...options].sort(
    (a, b) =>
      knownIn(cost, a.id) - knownIn(cost, b.id) ||
      a.distance - b.distance ||
      a.choice.capo - b.choice.capo ||
      (a.id < b.id ? -1 : 1),
  )
}

/** What trade-offs are made between: the height of the capo and a few mm of stretch are no reason of their own. */
const TRADED: readonly Priority[] = [
  'easy',
  'noBarre',
  'nearKey',
  'openRoots',
  'melodyRoom',
  'singer',
  'littleRetuning',
]

/** Points of effort that nobody feels. No source. */
export const UNFELT = 0.15

/** The options that no other one equals in everything that matters and betters in something, as far as a hand can tell. */
export function bestTradeOffs(options: readonly FitOption[], preferences: Preferences): FitOption[] {
  const counted = TRADED.filter((w) => preferences[w] > 0)
  const all = options.map((o) => ({ o, c: complaints(o) }))
  return all
    .filter(
      ({ o, c }) =>
        !all.some(
          (other) =>
            other.o !== o &&
            counted.every((w) => other.c[w] <= c[w] + UNFELT) &&
            counted.some((w) => other.c[w] < c[w] - UNFELT),
        ),
    )
    .map(({ o }) => o)
}

/** How many of the estimates are worked out in full. */
export const FINALISTS = 12

/** The choices to be arranged in full: the best by the estimate, and the best of each tuning. */
export function finalists(estimates: readonly FitOption[], preferences: Preferences): FitOption[] {
  const order = ranked(estimates, preferences)
  const chosen = new Set(order.slice(0, FINALISTS))
  const tunings = new Set<string>()
  for (const o of order) {
    const tuning = o.choice.tuning.join()
    if (!tunings.has(tuning)) chosen.add(o)
    tunings.add(tuning)
  }
  return order.filter((o) => chosen.has(o))
}
