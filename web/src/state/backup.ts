import type { ArrangementDoc } from '@velvet-porch/core/document'
import type { Backup, BackupRow, BackupTable, TuneFile } from '@velvet-porch/core/schema'
import type { IndexableType } from 'dexie'
import { db, TABLES_VERSION, type RecordingRow } from './db.ts'
import { newId } from '../newId.ts'
import { unstoredScores } from './openScore.ts'
import { currentPrefs, restorePrefs } from './prefs.ts'
import { addScore, arrangementId, versionId } from './shelf.ts'
import { storing } from './storageTrouble.ts'
import { allWritten } from './unwritten.ts'

const day = () => new Date().toISOString().slice(0, 10)

/** A file to be saved. */
export interface SavedFile {
  readonly name: string
  readonly text: string
}

/** Hears the share of a work that is done, from 0 to 1. */
export type OnShare = (share: number) => void

/** Rows that are read or written at once: the page lives between them. */
const LOT = 100

/** Goes through the rows of a table, in the order of their keys. */
async function eachLot(name: BackupTable, visit: (lot: readonly BackupRow[]) => void): Promise<void> {
  const table = db.table<BackupRow, IndexableType>(name)
  const key = table.schema.primKey.keyPath as string
  let lot = await table.orderBy(':id').limit(LOT).toArray()
  for (let last = lot.at(-1); last; last = lot.at(-1)) {
    visit(lot)
    lot = await table
      .where(':id')
      .above(last[key] as IndexableType)
      .limit(LOT)
      .toArray()
  }
}

/**
 * Everything: all tables as they stand, those scores on the page too that storage did not take. Where storage
 * cannot be read at all it holds what is on the page.
 */
export async function everythingKept(onShare: OnShare = () => undefined): Promise<Backup> {
  const { BACKUP_FORMAT, BACKUP_TABLES } = await import('@velvet-porch/core/schema')
  const onPage = unstoredScores()
  if (onPage.length === 0) await allWritten()
  const rows = Object.fromEntries(BACKUP_TABLES.map((t) => [t, [] as BackupRow[]]))
  try {
    await db.transaction('r', db.tables, async () => {
      const counts = await Promise.all(BACKUP_TABLES.map((t) => db.table(t).count()))
      const all = counts.reduce((sum, n) => sum + n, 0)
      let read = 0
      for (const t of BACKUP_TABLES)
        await eachLot(t, (lot) => {
          rows[t]!.push(...lot)
          onShare((read += lot.length) / Math.max(1, all))
        })
    })
  } catch (error) {
    if (onPage.length === 0) throw error
  }
  const put = (table: BackupTable, row: { readonly id: string } | undefined) => {
    if (row) rows[table] = [...rows[table]!.filter((r) => r['id'] !== row.id), row]
  }
  for (const { tune, arrangement } of onPage) {
    put('tunes', tune)
    put('arrangements', arrangement)
  }
  return {
    format: BACKUP_FORMAT,
    version: 1,
    tables: TABLES_VERSION,
    madeAt: new Date().toISOString(),
    prefs: currentPrefs(),
    rows: rows as unknown as Backup['rows'],
  }
}

/** The same as one text: where storage fails nothing stands between it and a file. */
export async function everything(): Promise<SavedFile> {
  return { name: `velvet-porch ${day()}.json`, text: JSON.stringify(await everythingKept()) }
}

/** A tune with all its arrangements as one file; undefined where there is no such tune. */
export async function tuneFile(tuneId: string): Promise<SavedFile | undefined> {
  const { TUNE_FILE_FORMAT } = await import('@velvet-porch/core/schema')
  await allWritten()
  const tune = await db.tunes.get(tuneId)
  if (!tune) return undefined
  const arrangements = await db.arrangements.where('tuneId').equals(tuneId).toArray()
  const file: TuneFile = { format: TUNE_FILE_FORMAT, version: 1, tune, arrangements }
  return { name: `${tune.title}.json`, text: JSON.stringify(file) }
}

/** Puts a tune from a file on the shelf, under ids of its own, so that nothing that is there gives way. */
export async function takeTuneFile(file: TuneFile): Promise<string> {
  const id = newId()
  const tune = { ...file.tune, id }
  const bench = file.arrangements.find((a) => a.id === arrangementId(file.tune.id))
  const renamed = (a: ArrangementDoc, own: string): ArrangementDoc => ({ ...a, id: own, tuneId: id })
  await addScore({ tune, ...(bench ? { arrangement: renamed(bench, arrangementId(id)) } : {}) })
  const versions = file.arrangements.filter((a) => a !== bench)
  await storing(() => db.arrangements.bulkAdd(versions.map((a) => renamed(a, versionId(id)))))
  return id
}

/** Tables whose rows stand for themselves, whatever tunes are here: what is not here is added. */
const OWN_ROWS = [
  'logs',
  'players',
  'patterns',
  'students',
  'assignments',
  'lessons',
  'repertoire',
  'sets',
  'tastes',
] as const

/** What bringing a backup in would do: titles of tunes that come, that are here already, and that would be gone with the rest. */
export interface RestoreChanges {
  readonly come: readonly string[]
  readonly here: readonly string[]
  readonly gone: readonly string[]
  readonly students: number
}

/** What bringing a backup in would change, before anything is. */
export async function restoreChanges({ rows }: Backup): Promise<RestoreChanges> {
  const titleOf = (row: BackupRow) => String(row['title'] ?? '')
  const here = new Set<unknown>(await db.tunes.toCollection().primaryKeys())
  const there = new Set<unknown>(rows.tunes.map((t) => t['id']))
  const students = new Set<unknown>(await db.students.toCollection().primaryKeys())
  return {
    come: rows.tunes.filter((t) => !here.has(t['id'])).map(titleOf),
    here: rows.tunes.filter((t) => here.has(t['id'])).map(titleOf),
    gone: (await db.shelf.toArray()).filter((t) => here.has(t.id) && !there.has(t.id)).map((t) => t.title),
    students: rows.students.filter((s) => !students.has(s['id'])).length,
  }
}

/** What bringing a backup in did. */
export interface Restored {
  readonly added: number
  /** Tunes that were there already and stayed as they are. */
  readonly kept: number
}

/**
 * Brings everything from a file back, all or nothing. `add` takes what is not here and leaves what is; `replace` puts
 * the file in the place of all that is here; only recordings that are not in it stay where their tunes do.
 * @param recordings those that came with it
 */
export async function restore(
  backup: Backup,
  how: 'add' | 'replace',
  recordings: readonly RecordingRow[] = [],
  onShare: OnShare = () => undefined,
): Promise<Restored> {
  await allWritten()
  const { rows } = backup
  const all = Object.values(rows).reduce((sum, table) => sum + table.length, 0)
  let written = 0
  /** Writes rows lot by lot. */
  const put = async (name: BackupTable, list: readonly BackupRow[]) => {
    for (let from = 0; from < list.length; from += LOT) {
      const lot = list.slice(from, from + LOT)
      await db.table(name).bulkPut(lot)
      onShare((written += lot.length) / all)
    }
  }
  const restored = await storing(() =>
    db.transaction('rw', db.tables, async (): Promise<Restored> => {
      if (how === 'replace') {
        const tables = db.tables.filter((table) => table.name !== 'recordings')
        for (const table of tables) await table.clear()
        for (const { name } of tables) await put(name as BackupTable, rows[name as BackupTable] ?? [])
        await keepRecordings(recordings, true)
        return { added: rows.tunes.length, kept: 0 }
      }
      const here = new Set<unknown>([
        ...(await db.tunes.toCollection().primaryKeys()),
        ...(await db.shelf.toCollection().primaryKeys()),
      ])
      const fresh = (key: 'id' | 'tuneId') => (r: BackupRow) => !here.has(r[key])
      for (const table of ['tunes', 'shelf', 'handouts', 'teaching', 'drafts'] as const)
        await put(table, rows[table].filter(fresh('id')))
      await put('arrangements', rows.arrangements.filter(fresh('tuneId')))
      // Steps of the history are numbered anew, in their order, behind those that are here.
      const history = rows.history.filter(fresh('tuneId')).map(({ seq: _, ...step }) => step)
      await db.table('history').bulkAdd(history)
      for (const table of OWN_ROWS) {
        const own = new Set<unknown>(await db.table(table).toCollection().primaryKeys())
        await db.table(table).bulkAdd(rows[table].filter((r) => !own.has(r['id'])))
      }
      await keepRecordings(recordings, false)
      const added = rows.tunes.filter(fresh('id')).length
      return { added, kept: rows.tunes.length - added }
    }),
  )
  if (how === 'replace' && backup.prefs !== undefined) restorePrefs(backup.prefs)
  return restored
}

/** Keeps recordings of tunes that are here. One that is there already stays unless it is to be replaced. */
async function keepRecordings(recordings: readonly RecordingRow[], replace: boolean): Promise<void> {
  const tunes = new Set<unknown>(await db.tunes.toCollection().primaryKeys())
  const own = new Set<unknown>(replace ? [] : await db.recordings.toCollection().primaryKeys())
  await db.recordings.bulkPut(recordings.filter((r) => tunes.has(r.id) && !own.has(r.id)))
}

/** Everything as it stands before a backup is brought in, to be put back whole. */
export interface Before {
  readonly backup: Backup
  readonly recordings: readonly RecordingRow[]
}

export const asBefore = async (onShare?: OnShare): Promise<Before> => ({
  backup: await everythingKept(onShare),
  recordings: await db.recordings.toArray(),
})

/** Puts everything back as it was, recordings too. */
export async function putBack({ backup, recordings }: Before, onShare?: OnShare): Promise<void> {
  await restore(backup, 'replace', [], onShare)
  await storing(() =>
    db.transaction('rw', db.recordings, async () => {
      await db.recordings.clear()
      await db.recordings.bulkPut([...recordings])
    }),
  )
}
