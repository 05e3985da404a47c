import type { LogEntry } from '../lesson/practice/practiceLog.ts'
import type { Day } from './day.ts'

/** Where somebody stands on the way up to a goal tempo. */
export interface TempoLadder {
  /** Rising tempos in quarter notes a minute, the goal last. */
  readonly tempos: readonly number[]
  /** The tempo that is played now, as an index. */
  readonly at: number
  /** Clean repetitions in a row at it, and misses in a row. */
  readonly clean: number
  readonly missed: number
  /** The highest tempo that was clean often enough; absent where none was. */
  readonly reached?: number
  /** The most clean repetitions in a row at the tempo of now, also when a miss came after. */
  readonly most: number
}

/** Misses in a row after which it goes down. Common practice, no source. */
const MISSES_DOWN = 2

/** A ladder on its first rung. */
export const newLadder = (tempos: readonly number[]): TempoLadder => ({
  tempos,
  at: 0,
  clean: 0,
  missed: 0,
  most: 0,
})

/**
 * The ladder after one more repetition: up only after so many clean ones in a row, down after two misses, never above the goal.
 * @param needed clean repetitions before the tempo rises
 */
export function afterRepetition(ladder: TempoLadder, wasClean: boolean, needed: number): TempoLadder {
  const { tempos, at } = ladder
  if (wasClean) {
    const clean = ladder.clean + 1
    const most = Math.max(ladder.most, clean)
    if (clean < needed) return { ...ladder, clean, missed: 0, most }
    const reached = Math.max(ladder.reached ?? 0, tempos[at] ?? 0)
    return at === tempos.length - 1
      ? { ...ladder, clean, missed: 0, most, reached }
      : { ...ladder, at: at + 1, clean: 0, missed: 0, most: 0, reached }
  }
  const missed = ladder.missed + 1
  return missed < MISSES_DOWN
    ? { ...ladder, clean: 0, missed }
    : { ...ladder, at: Math.max(0, at - 1), clean: 0, missed: 0, most: 0 }
}

/** True where the goal was clean often enough. */
export const isAtGoal = ({ tempos, reached = 0 }: TempoLadder): boolean =>
  reached >= (tempos.at(-1) ?? Infinity)

/** The highest tempo that was clean, and how often in a row. */
export const writtenOf = (
  ladder: TempoLadder,
  needed: number,
): { readonly bpm: number; readonly clean: number } =>
  ladder.reached === undefined
    ? { bpm: ladder.tempos[ladder.at] ?? 0, clean: ladder.most }
    : { bpm: ladder.reached, clean: needed }

/**
 * What is written down of a piece that was practised up a ladder.
 * @param needed clean repetitions before the tempo rises
 * @param ms milliseconds that it took; a minute at least is written
 */
export const practisedEntry = (
  ladder: TempoLadder,
  needed: number,
  { day, piece, ms }: { readonly day: Day; readonly piece: number; readonly ms: number },
): LogEntry => ({
  day,
  piece,
  ...writtenOf(ladder, needed),
  minutes: Math.max(1, Math.round(ms / 60_000)),
  note: '',
})
