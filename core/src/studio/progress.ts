import { groupBy } from 'es-toolkit'
import type { LogEntry } from '../lesson/practice/practiceLog.ts'
import { daysAfter, daysBetween, weekOf, type Day } from './day.ts'

/** The fastest clean tempo of some entries in quarter notes a minute; 0 where none was clean. */
export const bestClean = (entries: readonly LogEntry[]): number =>
  Math.max(0, ...entries.filter((e) => e.clean > 0).map((e) => e.bpm))

/** A tempo at which a tune was clean on a day, and the best until then. Quarter notes a minute. */
export interface TempoPoint {
  readonly day: Day
  /** The slowest of the pieces that were clean on this day: a tune is as fast as its slowest piece. */
  readonly reached: number
  readonly best: number
}

/** How the tempo rose, day by day, of the days on which anything was clean. */
export function tempoOverTime(entries: readonly LogEntry[]): TempoPoint[] {
  const byDay = groupBy(
    entries.filter((e) => e.clean > 0),
    (e) => e.day,
  )
  let best = 0
  return Object.keys(byDay)
    .sort()
    .map((day) => {
      const byPiece = Object.values(groupBy(byDay[day]!, (e) => e.piece))
      const reached = Math.min(...byPiece.map(bestClean))
      best = Math.max(best, reached)
      return { day, reached, best }
    })
}

/** Minutes of practice in a week, named by its Monday. */
export interface WeekMinutes {
  readonly week: Day
  readonly minutes: number
}

/** Minutes a week for so many weeks up to a day, weeks without practice too. */
export function minutesAWeek(entries: readonly LogEntry[], today: Day, weeks: number): WeekMinutes[] {
  const byWeek = groupBy(entries, (e) => weekOf(e.day))
  return Array.from({ length: weeks }, (_, i) => {
    const week = daysAfter(weekOf(today), -7 * (weeks - 1 - i))
    return { week, minutes: (byWeek[week] ?? []).reduce((sum, e) => sum + e.minutes, 0) }
  })
}

/** A piece whose tempo does not rise although it is practised. */
export interface StuckPiece {
  readonly piece: number
  /** The best clean tempo, 0 where it never was clean. */
  readonly bpm: number
  /** Days of practice without a rise, and the first of them. */
  readonly sessions: number
  readonly since: Day
}

/** Days of practice without a rise after which somebody is stuck. No source: common practice is some weeks of lessons. */
export const STUCK_SESSIONS = 3

/** The tempo that is to be reached in a piece, by its number; quarter notes a minute. */
export type GoalOf = (piece: number) => number

/** Pieces on which nothing has risen for some days of practice and whose goal is not reached, the longest stuck first. */
export function stuckPieces(
  entries: readonly LogEntry[],
  goalOf: GoalOf,
  sessions = STUCK_SESSIONS,
): StuckPiece[] {
  const byPiece = Object.values(groupBy(entries, (e) => e.piece))
  return byPiece
    .flatMap((own): StuckPiece[] => {
      const byDay = groupBy(own, (e) => e.day)
      const days = Object.keys(byDay).sort()
      let best = 0
      let flat: Day[] = []
      for (const day of days) {
        const reached = bestClean(byDay[day]!)
        if (reached > best) {
          best = reached
          flat = []
        } else flat.push(day)
      }
      return flat.length >= sessions && best < goalOf(own[0]!.piece)
        ? [{ piece: own[0]!.piece, bpm: best, sessions: flat.length, since: flat[0]! }]
        : []
    })
    .sort((a, b) => b.sessions - a.sessions || a.piece - b.piece)
}

/** Share of the pieces that are clean at their goal, 0 to 1. */
export function shareMastered(entries: readonly LogEntry[], pieces: number, goalOf: GoalOf): number {
  if (pieces === 0) return 0
  return Math.min(1, masteredOn(entries, goalOf).size / pieces)
}

/** The day on which each piece was clean at the goal for the first time; the whole tune (0) is none. */
export function masteredOn(entries: readonly LogEntry[], goalOf: GoalOf): ReadonlyMap<number, Day> {
  const first = new Map<number, Day>()
  for (const e of entries) {
    if (e.piece === 0 || e.clean === 0 || e.bpm < goalOf(e.piece)) continue
    const known = first.get(e.piece)
    if (known === undefined || daysBetween(known, e.day) < 0) first.set(e.piece, e.day)
  }
  return first
}

/** How much effort has been mastered by a day, in the points of the tab's effort. */
export interface EffortPoint {
  readonly day: Day
  readonly effort: number
}

/**
 * Effort mastered until each day on which a piece was mastered: a hard piece counts for more than an easy one.
 * @param mastered the day of each piece, as `masteredOn` has them
 * @param effortOfPiece points of effort of a piece, by its number
 */
export function effortOverTime(
  mastered: ReadonlyMap<number, Day>,
  effortOfPiece: (piece: number) => number,
): EffortPoint[] {
  const byDay = groupBy([...mastered], ([, day]) => day)
  let effort = 0
  return Object.keys(byDay)
    .sort()
    .map((day) => {
      effort += byDay[day]!.reduce((sum, [piece]) => sum + effortOfPiece(piece), 0)
      return { day, effort }
    })
}
