import type { ArrangementDoc } from '@velvet-porch/core/document'
import type { Backup, BackupRow, BackupTable, TuneFile } from '@velvet-porch/core/schema'
import { db, TABLES_VERSION, type RecordingRow } from './db.ts'
import { newId } from '../newId.ts'
import { packInWorker } from '../workers/benchWorker.ts'
import { unstoredScores } from './openScore.ts'
import { currentPrefs, restorePrefs } from './prefs.ts'
import { recordingsToPack } from './recordings.ts'
import { addScore, arrangementId, versionId } from './shelf.ts'
import { storing } from './storageTrouble.ts'
import { allWritten } from './unwritten.ts'

const day = () => new Date().toISOString().slice(0, 10)

/** A packed file to be saved. */
export interface PackedFile {
  readonly name: string
  readonly bytes: Uint8Array<ArrayBuffer>
}

/** A file to be saved. */
export interface SavedFile {
  readonly name: string
  readonly text: string
}

/**
 * Everything: all tables as they stand, those scores on the page too that storage did not take. Where storage
 * cannot be read at all it holds what is on the page.
 */
export async function everythingKept(): Promise<Backup> {
  const { BACKUP_FORMAT, BACKUP_TABLES } = await import('@velvet-porch/core/schema')
  const onPage = unstoredScores()
  if (onPage.length === 0) await allWritten()
  const rows = Object.fromEntries(BACKUP_TABLES.map((t) => [t, [] as BackupRow[]]))
  try {
    await db.transaction('r', db.tables, async () => {
      for (const t of BACKUP_TABLES) rows[t] = await db.table(t).toArray()
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

/** The same as a zip, with pieces in it that are read without the app; with or without the recordings, which are large. */
export async function everythingPacked(withRecordings: boolean): Promise<PackedFile> {
  const recordings = withRecordings ? await recordingsToPack() : []
  return { name: `velvet-porch ${day()}.zip`, bytes: await packInWorker(await everythingKept(), recordings) }
}

/** Where the rows of a tune say whose they are, table by table; tables that are not named hold nothing of a tune alone. */
const OF_TUNE: Readonly<Partial<Record<BackupTable, 'id' | 'tuneId'>>> = {
  shelf: 'id',
  tunes: 'id',
  arrangements: 'tuneId',
  history: 'tuneId',
  handouts: 'id',
  teaching: 'id',
  logs: 'tuneId',
  drafts: 'id',
  repertoire: 'id',
  assignments: 'tuneId',
}

/**
 * All of one tune: arrangements and versions, history, handout, what was noted and practised, its recording, and the students whose practice that is. Brought
 * in elsewhere it is the same, ids and all; undefined where there is no such tune.
 */
export async function projectOf(tuneId: string): Promise<PackedFile | undefined> {
  const all = await everythingKept()
  const title = all.rows.tunes.find((row) => row['id'] === tuneId)?.['title']
  if (title === undefined) return undefined
  const { BACKUP_TABLES } = await import('@velvet-porch/core/schema')
  const own = (table: BackupTable): readonly BackupRow[] => {
    const key = OF_TUNE[table]
    return key === undefined ? [] : all.rows[table].filter((row) => row[key] === tuneId)
  }
  const whose = new Set<unknown>([
    ...own('assignments').map((row) => row['studentId']),
    // A log is named by its tune and its student.
    ...own('logs').map(
      (row) =>
        String(row['id'])
          .slice(tuneId.length + 1)
          .split(' ')[0],
    ),
  ])
  const rows = Object.fromEntries(
    BACKUP_TABLES.map((table) => [
      table,
      table === 'students' || table === 'players'
        ? all.rows[table].filter((row) => whose.has(row['id']))
        : own(table),
    ]),
  ) as unknown as Backup['rows']
  const { prefs: _, ...rest } = all
  return {
    name: `${String(title)} project.zip`,
    bytes: await packInWorker({ ...rest, rows }, await recordingsToPack(tuneId)),
  }
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
  const own = await db.tunes.toArray()
  const here = new Set<unknown>(own.map((t) => t.id))
  const there = new Set<unknown>(rows.tunes.map((t) => t['id']))
  const students = new Set<unknown>(await db.students.toCollection().primaryKeys())
  return {
    come: rows.tunes.filter((t) => !here.has(t['id'])).map(titleOf),
    here: rows.tunes.filter((t) => here.has(t['id'])).map(titleOf),
    gone: own.filter((t) => !there.has(t.id)).map((t) => t.title),
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
): Promise<Restored> {
  await allWritten()
  const { rows } = backup
  const restored = await storing(() =>
    db.transaction('rw', db.tables, async (): Promise<Restored> => {
      if (how === 'replace') {
        const tables = db.tables.filter((table) => table.name !== 'recordings')
        for (const table of tables) await table.clear()
        for (const table of tables) await table.bulkPut([...(rows[table.name as BackupTable] ?? [])])
        await keepRecordings(recordings, true)
        return { added: rows.tunes.length, kept: 0 }
      }
      const here = new Set<unknown>([
        ...(await db.tunes.toCollection().primaryKeys()),
        ...(await db.shelf.toCollection().primaryKeys()),
      ])
      const fresh = (key: 'id' | 'tuneId') => (r: BackupRow) => !here.has(r[key])
      for (const table of ['tunes', 'shelf', 'handouts', 'teaching', 'drafts'] as const)
        await db.table(table).bulkPut(rows[table].filter(fresh('id')))
      await db.table('arrangements').bulkPut(rows.arrangements.filter(fresh('tuneId')))
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

export const asBefore = async (): Promise<Before> => ({
  backup: await everythingKept(),
  recordings: await db.recordings.toArray(),
})

/** Puts everything back as it was, recordings too. */
export async function putBack({ backup, recordings }: Before): Promise<void> {
  await restore(backup, 'replace')
  await storing(() =>
    db.transaction('rw', db.recordings, async () => {
      await db.recordings.clear()
      await db.recordings.bulkPut([...recordings])
    }),
  )
}
