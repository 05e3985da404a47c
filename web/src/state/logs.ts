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
const unitOf = (log: { readonly unit?: Unit }): Unit => log.unit ?? 'phrase'

/**
 * What a student of a tune wrote down; undefined where there is none.
 * @param student the id of a hand; empty for nobody in particular
 */
export const useLog = (tuneId: string, student: string): LogOf | undefined =>
  useLogOnceRead(tuneId, student)?.log

/** The same; undefined until it is known whether there is one. */
export function useLogOnceRead(
  tuneId: string,
  student: string,
): { readonly log: LogOf | undefined } | undefined {
  const id = logId(tuneId, student)
  const read = useStored(async () => ({ id, row: await db.logs.get(id) }), [id])
  return useMemo(() => {
    // What was read before stays until the next is: it is not this one's.
    if (read?.id !== id) return undefined
    return { log: read.row && { unit: unitOf(read.row), entries: read.row.entries } }
  }, [read, id])
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
  /** True where its pieces are others than those of the log that is kept: that one is laid aside, not joined, until its unit is used again. */
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

/** A log of other pieces that waits until its unit is used again. */
const asideId = (id: string, unit: Unit): string => `${id} ${unit}`

/** What is kept in a unit: the log in use, or the one of that unit that was laid aside. */
async function keptIn(id: string, unit: Unit) {
  const kept = await db.logs.get(id)
  const isOther = kept !== undefined && unitOf(kept) !== unit
  const own = isOther ? await db.logs.get(asideId(id, unit)) : kept
  return { other: isOther ? kept : undefined, entries: own?.entries ?? [] }
}

async function heldAgainst(returned: ReturnedLog): Promise<ReturnedLog> {
  const { log, student } = returned
  if (student === undefined) return returned
  const { other, entries } = await keptIn(logId(log.tune, student), unitOf(log))
  return { ...returned, otherPieces: other !== undefined, merged: mergeLogs(entries, log.entries) }
}

/** Puts a log into use in a unit; one of other pieces is laid aside, and the one that was laid aside in this unit goes on. */
async function changeLog(
  tuneId: string,
  student: string,
  unit: Unit,
  change: (entries: readonly LogEntry[]) => readonly LogEntry[],
): Promise<void> {
  const id = logId(tuneId, student)
  await storing(() =>
    db.transaction('rw', db.logs, async () => {
      const { other, entries } = await keptIn(id, unit)
      if (other) {
        await db.logs.put({ ...other, id: asideId(id, unitOf(other)) })
        await db.logs.delete(asideId(id, unit))
      }
      await db.logs.put({ id, tuneId, readAt: Date.now(), unit, entries: change(entries) })
    }),
  )
}

/** Keeps a log that came back, joined with what was known. @throws Error where it is not known whose it is */
export async function keepLog({ log, student }: ReturnedLog, keeping: Keeping): Promise<void> {
  if (student === undefined) throw new Error('Nobody has said whose log this is.')
  await changeLog(log.tune, student, unitOf(log), (kept) => mergeLogs(kept, log.entries, keeping).entries)
}

/** Writes one entry of practice down. */
export const writeEntry = (tuneId: string, student: string, unit: Unit, entry: LogEntry): Promise<void> =>
  changeLog(tuneId, student, unit, (kept) => [...kept, entry])

function parsed(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return undefined
  }
}
