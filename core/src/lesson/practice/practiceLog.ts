import { groupBy } from 'es-toolkit'
import type { Unit } from './piece.ts'

export const LOG_FORMAT = 'velvet-porch-practice-log'

/** What a student wrote down after practising a piece. */
export interface LogEntry {
  /** Day, as in 2026-11-26. */
  readonly day: string
  /** Number of the piece; 0 for the whole. */
  readonly piece: number
  /** Tempo that was reached, in quarter notes a minute. */
  readonly bpm: number
  /** Clean repetitions in a row. */
  readonly clean: number
  readonly minutes: number
  readonly note: string
}

/** A student's log of one lesson file, as it travels. */
export interface PracticeLog {
  readonly format: typeof LOG_FORMAT
  readonly version: 1
  /** The tune's id and title when the lesson was made. */
  readonly tune: string
  readonly title: string
  /** What a piece is in it; a phrase where it does not say. */
  readonly unit?: Unit
  /** The student's id, where the lesson was made for one. */
  readonly student?: string
  readonly entries: readonly LogEntry[]
}

/** Letters of a note, and entries of a log, at most. */
export const LONGEST_LOG_NOTE = 300
export const MOST_ENTRIES = 2000

/** How far a student has come with each piece: days, minutes, the best tempo that was clean. */
export interface PieceProgress {
  readonly piece: number
  readonly days: number
  readonly minutes: number
  /** Best tempo at which it was clean at least once; absent where it never was. */
  readonly bestBpm?: number
  readonly lastDay: string
}

/** A log summed up piece by piece. */
export function progressOf(entries: readonly LogEntry[]): PieceProgress[] {
  const pieces = Object.values(groupBy(entries, (e) => e.piece))
  return pieces
    .sort((a, b) => a[0]!.piece - b[0]!.piece)
    .map((own): PieceProgress => {
      const { piece } = own[0]!
      const clean = own.filter((e) => e.clean > 0).map((e) => e.bpm)
      return {
        piece,
        days: new Set(own.map((e) => e.day)).size,
        minutes: own.reduce((sum, e) => sum + e.minutes, 0),
        ...(clean.length > 0 ? { bestBpm: Math.max(...clean) } : {}),
        lastDay: own
          .map((e) => e.day)
          .sort()
          .at(-1)!,
      }
    })
}

/** Entries in which the student wrote something, the latest first. */
export const notesOf = (entries: readonly LogEntry[]): LogEntry[] =>
  entries
    .filter((e) => e.note.trim() !== '')
    .reverse()
    .sort((a, b) => b.day.localeCompare(a.day))

/** Entries as a device kept them: what is none is left out, so that a lesson opens whatever is found there. */
export const entriesFrom = (kept: unknown): LogEntry[] => (Array.isArray(kept) ? kept.filter(isEntry) : [])

function isEntry(x: unknown): x is LogEntry {
  const { day, piece, bpm, clean, minutes, note } = (x ?? {}) as Partial<Record<keyof LogEntry, unknown>>
  const numbers = [piece, bpm, clean, minutes].every(
    (n) => typeof n === 'number' && Number.isFinite(n) && n >= 0,
  )
  return numbers && typeof day === 'string' && typeof note === 'string'
}
