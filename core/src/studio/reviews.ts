import { groupBy } from 'es-toolkit'
import { createEmptyCard, fsrs, Rating, type Card, type Grade } from 'ts-fsrs'
import type { LogEntry } from '../lesson/practice/practiceLog.ts'
import { daysAfter, type Day } from './day.ts'
import { bestClean, type GoalOf } from './progress.ts'

/** When a piece is to be played again before it fades. */
export interface Review {
  readonly piece: number
  readonly lastDay: Day
  readonly due: Day
  /** Probability that it is still known on the day that was asked for, 0 to 1. */
  readonly known: number
}

/** Spaced repetition by whole days, without chance: the same log gives the same days on every device. */
const scheduler = fsrs({ enable_fuzz: false, enable_short_term: false })

/** Reviews are reckoned in days of one length: clocks that change do not move them. */
const noonOf = (day: Day): Date => new Date(`${day}T12:00:00Z`)

/**
 * How a day of practice went for a piece: never clean, clean but slower than before, clean at least as fast, or at the goal
 * once more. Common practice, no source.
 */
export function gradeOf(entries: readonly LogEntry[], bestBefore: number, goalBpm: number): Grade {
  const reached = bestClean(entries)
  if (reached === 0) return Rating.Again
  if (reached < Math.min(bestBefore, goalBpm)) return Rating.Hard
  return bestBefore >= goalBpm && reached >= goalBpm ? Rating.Easy : Rating.Good
}

/** The reviews of all pieces that were practised, worked out from the log alone; the most urgent first. */
export function reviewsOf(entries: readonly LogEntry[], goalOf: GoalOf, today: Day): Review[] {
  const byPiece = Object.values(
    groupBy(
      entries.filter((e) => e.day <= today),
      (e) => e.piece,
    ),
  )
  return byPiece
    .map((own): Review => {
      const { piece } = own[0]!
      const byDay = groupBy(own, (e) => e.day)
      const days = Object.keys(byDay).sort()
      let card: Card = createEmptyCard(noonOf(days[0]!))
      let best = 0
      for (const day of days) {
        const practised = byDay[day]!
        card = scheduler.next(card, noonOf(day), gradeOf(practised, best, goalOf(piece))).card
        best = Math.max(best, bestClean(practised))
      }
      const lastDay = days.at(-1)!
      return {
        piece,
        lastDay,
        due: daysAfter(lastDay, card.scheduled_days),
        known: scheduler.get_retrievability(card, noonOf(today), false),
      }
    })
    .sort((a, b) => a.known - b.known || a.piece - b.piece)
}
