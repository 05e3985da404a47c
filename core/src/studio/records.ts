import type { Level } from '../document/style.ts'
import type { InstrumentKind } from '../instrument/instruments.ts'
import type { Day } from './day.ts'

/** What a teacher keeps of a student. Name and hand are the player's of the same id: a hand belongs to a student. */
export interface StudentRecord {
  readonly id: string
  readonly since: Day
  readonly instrument: InstrumentKind
  readonly level: Level
  /** Minutes of practice that the student has a day. */
  readonly minutesADay: number
  readonly goals: string
  readonly notes: string
}

/** A tune that a student learns, in one of its versions. */
export interface Assignment {
  readonly id: string
  readonly studentId: string
  readonly tuneId: string
  /** The kept version; absent for the one on the bench. */
  readonly versionId?: string
  readonly given: Day
  /** When it is to be ready. */
  readonly due?: Day
  /** Set when it is learnt. */
  readonly learnt?: Day
}

/** A lesson: one that is planned, or what was done in it. */
export interface LessonRecord {
  readonly id: string
  readonly studentId: string
  readonly day: Day
  /** Hour and minute, as in 16:30. */
  readonly time: string
  readonly minutes: number
  readonly state: 'planned' | 'held' | 'missed'
  /** What was done, what comes next, and what only the teacher reads. */
  readonly done: string
  readonly next: string
  readonly notes: string
}

/** Letters of a text in a record, and minutes of a lesson, at most. */
export const RECORD_LIMITS = { text: 4000, minutes: 480 } as const

/** The last lesson that was held before a day, and the first that is planned from it on. */
export function lessonsAround(
  lessons: readonly LessonRecord[],
  today: Day,
): { readonly last?: LessonRecord; readonly coming?: LessonRecord } {
  const sorted = [...lessons].sort((a, b) => `${a.day} ${a.time}`.localeCompare(`${b.day} ${b.time}`))
  const last = sorted.findLast((l) => l.state === 'held' && l.day <= today)
  const coming = sorted.find((l) => l.state === 'planned' && l.day >= today)
  return { ...(last ? { last } : {}), ...(coming ? { coming } : {}) }
}
