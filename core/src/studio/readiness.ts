import type { LogEntry } from '../lesson/practice/practiceLog.ts'
import { daysAfter, daysBetween, type Day } from './day.ts'
import { masteredOn, type GoalOf } from './progress.ts'

/** When a tune should be ready at the pace so far: the middle of what is likely, and the ends of eight in ten cases. */
export interface Readiness {
  readonly day: Day
  readonly early: Day
  readonly late: Day
}

/** Before anything is known: a piece a week, as little certain as one piece can be. Common practice, no source. */
const BEFORE = { pieces: 1, days: 7 }

/**
 * The day on which all pieces of a tune should be clean at their goal. Pieces are taken to be mastered at a steady but
 * unknown rate (a Poisson process with a gamma prior), so the time for the rest follows a beta prime distribution, whose
 * distribution function is a binomial tail.
 * @param begun the day on which the tune was given
 * @returns undefined where it is ready already
 */
export function readinessOf(
  entries: readonly LogEntry[],
  pieces: number,
  goalOf: GoalOf,
  begun: Day,
  today: Day,
): Readiness | undefined {
  const mastered = [...masteredOn(entries, goalOf).values()].filter((day) => day <= today).length
  const left = pieces - mastered
  if (left <= 0) return undefined
  const seen = Math.max(0, daysBetween(begun, today)) + BEFORE.days
  const after = (share: number) =>
    daysAfter(today, Math.min(MOST_DAYS, Math.ceil(seen * waitFor(left, mastered + BEFORE.pieces, share))))
  return { day: after(0.5), early: after(0.1), late: after(0.9) }
}

/** Days beyond which no date is of use. */
const MOST_DAYS = 3650

/**
 * How long so many more events take, in units of the time that was seen, with a given probability.
 * @param left events to come; `known` events seen, prior included
 * @param share the probability that it takes no longer
 */
export function waitFor(left: number, known: number, share: number): number {
  let low = 0
  let high = 1
  for (let i = 0; i < BISECTIONS; i++) {
    const p = (low + high) / 2
    if (atLeast(left, left + known - 1, p) < share) low = p
    else high = p
  }
  const p = (low + high) / 2
  return p / (1 - p)
}

const BISECTIONS = 50

/** Probability of at least `least` hits in `tries`, each with probability `p`. */
function atLeast(least: number, tries: number, p: number): number {
  let sum = 0
  let logChoose = 0
  for (let j = 0; j <= tries; j++) {
    if (j > 0) logChoose += Math.log((tries - j + 1) / j)
    if (j >= least) sum += Math.exp(logChoose + j * Math.log(p) + (tries - j) * Math.log1p(-p))
  }
  return sum
}
