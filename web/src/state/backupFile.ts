import type { PackedRecording } from '@velvet-porch/core/formats'
import type { Message } from '@velvet-porch/core/messages'
import type { Backup, BackupRow, BackupTable } from '@velvet-porch/core/schema'
import { inTurns } from '../workers/inTurns.ts'
import { packInWorker, unpackInWorker } from '../workers/benchWorker.ts'
import { everythingKept, type OnShare } from './backup.ts'
import { TABLES_VERSION, type RecordingRow } from './db.ts'
import { recordingRow, recordingsToPack } from './recordings.ts'

const day = () => new Date().toISOString().slice(0, 10)

/** A packed file to be saved. */
export interface PackedFile {
  readonly name: string
  readonly bytes: Uint8Array<ArrayBuffer>
}

/** Shares of the work of a backup: what was read, and what was written down; the rest is packing. */
const READ_SHARE = 0.25
const WRITTEN_SHARE = 0.35

/** The same as a zip, with pieces in it that are read without the app; with or without the recordings, which are large. */
export async function everythingPacked(
  withRecordings: boolean,
  onShare: OnShare = () => undefined,
): Promise<PackedFile> {
  const recordings = withRecordings ? await recordingsToPack() : []
  const kept = await everythingKept((share) => onShare(READ_SHARE * share))
  return { name: `velvet-porch ${day()}.zip`, bytes: await packed(kept, recordings, onShare) }
}

/** Packs a backup. Its text goes to the worker as a file, which no message has to copy. */
async function packed(
  backup: Backup,
  recordings: readonly PackedRecording[],
  onShare: OnShare = () => undefined,
): Promise<Uint8Array<ArrayBuffer>> {
  const { backupText } = await import('@velvet-porch/core/formats')
  const text = await inTurns(asFile(backupText(backup)))
  onShare(WRITTEN_SHARE)
  return packInWorker(text, recordings, (share) => onShare(WRITTEN_SHARE + (1 - WRITTEN_SHARE) * share))
}

/** Characters of a text that are given to the browser to keep at once. */
const PIECE = 4_000_000

function* asFile(pieces: Iterable<string>): Generator<void, Blob> {
  const files: Blob[] = []
  let [lines, length]: [string[], number] = [[], 0]
  for (const line of pieces) {
    lines.push(line)
    if ((length += line.length) > PIECE) {
      files.push(new Blob(lines))
      ;[lines, length] = [[], 0]
    }
    yield
  }
  return new Blob([...files, ...lines])
}

/** A file with everything, opened. */
export interface OpenedBackup {
  readonly backup: Backup
  readonly recordings: readonly RecordingRow[]
}

/**
 * Opens a file with everything, zip or JSON; nothing is changed by it.
 * @throws SchemaError where it is none, is damaged, or was made by a newer version of the app; BackupFileError where it cannot be read
 */
export async function openBackup(file: Blob, onShare: OnShare = () => undefined): Promise<OpenedBackup> {
  const { readBackup } = await import('@velvet-porch/core/schema')
  const { readingBackupText } = await import('@velvet-porch/core/formats')
  const { isZip } = await import('@velvet-porch/core/input/any')
  const bytes = new Uint8Array(await file.arrayBuffer())
  const content = isZip(bytes) ? await unpackInWorker(bytes) : { text: bytes, recordings: [] }
  if ('says' in content) throw new BackupFileError(content.says)
  let value: unknown
  try {
    value = await inTurns(readingBackupText(content.text), { onProgress: onShare })
  } catch (error) {
    throw new BackupFileError(undefined, { cause: error })
  }
  return { backup: readBackup(value, TABLES_VERSION), recordings: content.recordings.map(recordingRow) }
}

/** A file that cannot be read as one with everything. */
export class BackupFileError extends Error {
  override readonly name = 'BackupFileError'
  /** @param says what is wrong with a zip; undefined where the text in it is no JSON */
  constructor(
    readonly says: Message<'files'> | undefined,
    options?: ErrorOptions,
  ) {
    super(says?.code ?? 'no JSON', options)
  }
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
    bytes: await packed({ ...rest, rows }, await recordingsToPack(tuneId)),
  }
}
