import type { LogEntry, LogOf, PracticeLog, Unit } from '@velvet-porch/core/lesson'
import { mergeLogs, type Keeping, type MergedLog } from '@velvet-porch/core/studio'
import { useMemo } from 'react'
import { db, type LogRow } from './db.ts'
import { storing } from './storageTrouble.ts'
import { useStored } from './useStored.ts'

/** Logs of nobody in particular are kept by their tune alone. */
const logId = (tuneId: string, student: string): string => (student === '' ? tuneId : `${tuneId} ${student}`)

/** Whose a log is: the id of a hand; empty for nobody in particular. */
export const studentOfLog = ({ id, tuneId }: LogRow): string => id.slice(tuneId.length + 1)

/** True for a log of a student, laid aside ones too. */
export const isLogOf = (row: LogRow, student: string): boolean => studentOfLog(row).split(' ')[0] === student

/** The unit in which the pieces of a log are numbered. */
const unitOf = (log: Pick<LogRow, 'unit'>) => log.unit ?? 'phrase'

/**
 * What a student of a tune wrote down; undefined where there is none.
 * @param student the id of a hand; empty for nobody in particular
 */
export function useLog(tuneId: string, student: string): LogOf | undefined {
  const row = useStored(() => db.logs.get(logId(tuneId, student)), [tuneId, student])
  return useMemo(() => row && { unit: unitOf(row), entries: row.entries }, [row])
}

/** Every log that is kept. */
export const useLogs = (): readonly LogRow[] => useStored(() => db.logs.toArray()) ?? NO_LOGS

const NO_LOGS: readonly LogRow[] = []

/** A practice log that came back, held against what is kept. */
export interface ReturnedLog {
  /** Name of the file. */
  readonly file: string
  readonly log: PracticeLog
  /** The tune's name on this shelf. */
  readonly title: string
  /** Whose it is: as it says, or whom it was taken for; undefined where nobody can tell. */
  readonly student: string | undefined
  /** What it tells; absent until it is known whose it is. */
  readonly merged?: MergedLog
  /** True where its pieces are others than those of the log that is kept: that one is laid aside, not joined. */
  readonly otherPieces: boolean
}

/**
 * Reads a practice log without keeping it.
 * @param student whose log it is where it does not say, or names somebody who is not on record
 * @throws SchemaError where it is not a log; Error where its tune is not on this shelf
 */
export async function lookAtLog(file: string, text: string, student?: string): Promise<ReturnedLog> {
  const { readPracticeLog } = await import('@velvet-porch/core/schema')
  const log = readPracticeLog(parsed(text))
  const tune = await db.shelf.get(log.tune)
  if (!tune) throw new Error(`This log belongs to “${log.title}”, which is not on this shelf.`)
  const named = log.student === undefined ? undefined : await db.players.get(log.student)
  return heldAgainst({ file, log, title: tune.title, student: named?.id ?? student, otherPieces: false })
}

/** The same log as somebody else's. */
export const asLogOf = (returned: ReturnedLog, student: string): Promise<ReturnedLog> =>
  heldAgainst({ ...returned, student })

async function heldAgainst(returned: ReturnedLog): Promise<ReturnedLog> {
  const { log, student } = returned
  if (student === undefined) return returned
  const kept = await db.logs.get(logId(log.tune, student))
  const otherPieces = kept !== undefined && unitOf(kept) !== unitOf(log)
  return {
    ...returned,
    otherPieces,
    merged: mergeLogs(otherPieces ? [] : (kept?.entries ?? []), log.entries),
  }
}

/** Keeps a log that came back, joined with what was known. @throws Error where it is not known whose it is */
export async function keepLog({ log, student }: ReturnedLog, keeping: Keeping): Promise<void> {
  if (student === undefined) throw new Error('Nobody has said whose log this is.')
  const id = logId(log.tune, student)
  await storing(() =>
    db.transaction('rw', db.logs, async () => {
      const kept = await db.logs.get(id)
      const other = kept && unitOf(kept) !== unitOf(log)
      if (other) await db.logs.put({ ...kept, id: `${id} ${unitOf(kept)}` })
      const { entries } = mergeLogs(other ? [] : (kept?.entries ?? []), log.entries, keeping)
      const { unit } = log
      await db.logs.put({
        id,
        tuneId: log.tune,
        readAt: Date.now(),
        ...(unit === undefined ? {} : { unit }),
        entries,
      })
    }),
  )
}

/** Writes one entry of practice down. Where the log that is kept has other pieces, that one is laid aside. */
export async function writeEntry(
  tuneId: string,
  student: string,
  unit: Unit,
  entry: LogEntry,
): Promise<void> {
  const id = logId(tuneId, student)
  await storing(() =>
    db.transaction('rw', db.logs, async () => {
      const kept = await db.logs.get(id)
      const other = kept && unitOf(kept) !== unit
      if (other) await db.logs.put({ ...kept, id: `${id} ${unitOf(kept)}` })
      const entries = other ? [entry] : [...(kept?.entries ?? []), entry]
      await db.logs.put({ id, tuneId, readAt: Date.now(), unit, entries })
    }),
  )
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return undefined
  }
}
