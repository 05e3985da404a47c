import type { LogOf } from '@velvet-porch/core/lesson'
import { useMemo } from 'react'
import { db } from './db.ts'
import { storing } from './storageTrouble.ts'
import { useStored } from './useStored.ts'
import { mayWrite } from './writeLock.ts'

const NO_NOTES: Readonly<Record<string, string>> = {}

/** The teacher's words to the pieces of a tune, by piece. */
export const usePieceNotes = (tuneId: string): Readonly<Record<string, string>> =>
  useStored(async () => (await db.teaching.get(tuneId))?.notes, [tuneId]) ?? NO_NOTES

/** Keeps the words to one piece; none take them off. */
export async function keepPieceNote(tuneId: string, piece: string, text: string): Promise<void> {
  if (!mayWrite(tuneId)) return
  await storing(() =>
    db.transaction('rw', db.teaching, async () => {
      const { [piece]: _, ...others } = (await db.teaching.get(tuneId))?.notes ?? {}
      await db.teaching.put({ id: tuneId, notes: text.trim() === '' ? others : { ...others, [piece]: text } })
    }),
  )
}

/** Logs of nobody in particular are kept by their tune alone. */
const logId = (tuneId: string, student: string): string => (student === '' ? tuneId : `${tuneId} ${student}`)

/**
 * What a student of a tune wrote down, from the log that was read back last; undefined where there is none.
 * @param student the id of a hand; empty for nobody in particular
 */
export function useLog(tuneId: string, student: string): LogOf | undefined {
  const row = useStored(() => db.logs.get(logId(tuneId, student)), [tuneId, student])
  return useMemo(() => row && { unit: row.unit ?? 'phrase', entries: row.entries }, [row])
}

/**
 * Reads a practice log that a student sent and keeps it with its tune and student; a later one takes its place.
 * @param student whose log it is where it does not say, or somebody who is not on record
 * @returns whose log it was taken for
 * @throws SchemaError where it is not a log; Error where it belongs to another tune
 */
export async function takeLog(tuneId: string, text: string, student: string): Promise<string> {
  const { readPracticeLog } = await import('@velvet-porch/core/schema')
  const log = readPracticeLog(parsed(text))
  if (log.tune !== tuneId) throw new Error(`This log belongs to “${log.title}”.`)
  const named = log.student === undefined ? undefined : await db.players.get(log.student)
  const whose = named?.id ?? student
  const { unit, entries } = log
  await storing(() =>
    db.logs.put({
      id: logId(tuneId, whose),
      tuneId,
      readAt: Date.now(),
      ...(unit === undefined ? {} : { unit }),
      entries,
    }),
  )
  return whose
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return undefined
  }
}
