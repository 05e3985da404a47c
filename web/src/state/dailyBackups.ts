import Dexie, { type Table } from 'dexie'
import { db } from './db.ts'
import { everythingPacked } from './backupFile.ts'

/** A backup that the app made by itself on a day. */
export interface DailyBackup {
  readonly day: string
  readonly tunes: number
  readonly bytes: Uint8Array<ArrayBuffer>
}

interface FolderRow {
  readonly id: 'folder'
  readonly handle: FileSystemDirectoryHandle
}

/** The newest days that are kept, and of the months before the first day of each. */
const DAYS = 7
const MONTHS = 12

/** Apart from the app's own database: what brings it back must not fall with it. */
class BackupDb extends Dexie {
  readonly days!: Table<DailyBackup, string>
  readonly places!: Table<FolderRow, string>

  constructor() {
    super('velvet-porch-backups')
    this.version(1).stores({ days: 'day', places: 'id' })
  }
}

const backups = new BackupDb()

const today = (): string => new Date().toISOString().slice(0, 10)

/** The days that are kept of some: the newest, and the first of each month before. */
export function keptDays(days: readonly string[]): string[] {
  const sorted = [...days].sort().reverse()
  const newest = sorted.slice(0, DAYS)
  const months = new Map<string, string>()
  for (const day of sorted.slice(DAYS)) months.set(day.slice(0, 7), day)
  return [...newest, ...[...months.values()].slice(0, MONTHS)]
}

/**
 * Makes today's backup, once a day and where there is anything to keep; writes it into the chosen folder too, where the browser may.
 * Where storage is full the oldest gives way. Recordings are in none: a week of them would fill the browser.
 */
export async function keepDailyBackup(): Promise<void> {
  const tunes = await db.tunes.count()
  if (tunes === 0 || (await backups.days.get(today()))) return
  const row = { day: today(), tunes, bytes: (await everythingPacked(false)).bytes }
  try {
    await backups.days.put(row)
  } catch {
    const oldest = await backups.days.orderBy('day').first()
    if (!oldest) return
    await backups.days.delete(oldest.day)
    await backups.days.put(row)
  }
  const days = await backups.days.toCollection().primaryKeys()
  const kept = new Set(keptDays(days))
  await backups.days.bulkDelete(days.filter((d) => !kept.has(d)))
  await intoFolder(row).catch(() => undefined)
}

/** Makes the backups of this browser anew, of what is here now: what was erased is in none. */
export async function remakeBackups(): Promise<void> {
  await backups.days.clear()
  await keepDailyBackup()
}

/** The backups that were made, the newest first. */
export const dailyBackups = (): Promise<DailyBackup[]> => backups.days.orderBy('day').reverse().toArray()

/** Where else backups are written; undefined where no folder was chosen. */
export const backupFolder = async (): Promise<string | undefined> =>
  (await backups.places.get('folder'))?.handle.name

/** True where this browser can write into a folder. */
export const canChooseFolder = (): boolean => 'showDirectoryPicker' in window

/** Has the teacher choose a folder, and writes the newest backup there at once. */
export async function chooseFolder(): Promise<string> {
  const { showDirectoryPicker } = window as unknown as {
    showDirectoryPicker: (options: object) => Promise<FileSystemDirectoryHandle>
  }
  const handle = await showDirectoryPicker({ id: 'velvet-porch', mode: 'readwrite' })
  await backups.places.put({ id: 'folder', handle })
  await keepDailyBackup()
  const [newest] = await dailyBackups()
  if (newest) await intoFolder(newest)
  return handle.name
}

async function intoFolder({ day, bytes }: DailyBackup): Promise<void> {
  const place = await backups.places.get('folder')
  if (!place) return
  const file = await place.handle.getFileHandle(`velvet-porch ${day}.zip`, { create: true })
  const stream = await file.createWritable()
  await stream.write(bytes)
  await stream.close()
}
