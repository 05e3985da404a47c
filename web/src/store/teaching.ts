import type { LogEntry, PracticeLog } from '@velvet-porch/core'
import { useLiveQuery } from 'dexie-react-hooks'
import { db } from './db.ts'

const NO_NOTES: Readonly<Record<string, string>> = {}

/** The teacher's words to the pieces of a tune, by piece. */
export const usePieceNotes = (tuneId: string): Readonly<Record<string, string>> =>
  useLiveQuery(async () => (await db.teaching.get(tuneId))?.notes, [tuneId]) ?? NO_NOTES

/** Keeps the words to one piece; none take them off. */
export async function keepPieceNote(tuneId: string, piece: string, text: string): Promise<void> {
  await db.transaction('rw', db.teaching, async () => {
    const { [piece]: _, ...others } = (await db.teaching.get(tuneId))?.notes ?? {}
    await db.teaching.put({ id: tuneId, notes: text.trim() === '' ? others : { ...others, [piece]: text } })
  })
}

const NO_ENTRIES: readonly LogEntry[] = []

/** What the student of a tune wrote down, from the log that was read back last. */
export const useLog = (tuneId: string): readonly LogEntry[] =>
  useLiveQuery(async () => (await db.logs.get(tuneId))?.entries, [tuneId]) ?? NO_ENTRIES

/**
 * Reads a practice log that a student sent and keeps it with its tune; a later one of the same tune takes its place.
 * @throws SchemaError where it is not a log; Error where it belongs to another tune
 */
export async function takeLog(tuneId: string, text: string): Promise<PracticeLog> {
  const { readPracticeLog } = await import('@velvet-porch/core/schema')
  const log = readPracticeLog(parsed(text))
  if (log.tune !== tuneId) throw new Error(`This log belongs to “${log.title}”.`)
  await db.logs.put({ id: tuneId, tuneId, readAt: Date.now(), entries: log.entries })
  return log
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return undefined
  }
}
