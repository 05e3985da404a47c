import { strFromU8, strToU8, unzipSync, zipSync, type Zippable } from 'fflate'
import { message, type Message } from '../messages/message.ts'
import type { Backup } from '../schema/backupSchema.ts'
import { readArrangementDoc } from '../schema/arrangementSchema.ts'
import { readTuneDoc } from '../schema/tuneSchema.ts'
import { finish } from '../turns.ts'
import { canWrite, FORMATS } from './formats.ts'

/** The file of a zip that brings everything back; the others are to be read without the app. */
const WHOLE = 'everything.json'

/** The largest content that is unpacked, in bytes. */
const LARGEST = 400_000_000

/** Formats of the readable pieces, with their folders. */
const PIECES = [
  { id: 'abc', folder: 'tunes' },
  { id: 'chordpro', folder: 'songs' },
  { id: 'text', folder: 'tabs' },
] as const

const README = `This file holds everything that Velvet Porch keeps: ${WHOLE} brings it back (Settings, Your data).
The other files are there to be read without the app: tunes as ABC, songs as ChordPro, tabs as text.
`

/** A file that holds no shelf. */
export class ShelfZipError extends Error {
  override readonly name = 'ShelfZipError'
  constructor(readonly says: Message<'files'>) {
    super(says.code)
  }
}

/**
 * Everything as a zip: the file that brings it back, and each tune and tab in a format that is read without the app. A document that cannot
 * be read is in the first all the same.
 */
export function shelfZip(backup: Backup): Uint8Array {
  const files: Zippable = { [WHOLE]: strToU8(JSON.stringify(backup)), 'README.txt': strToU8(README) }
  const names = new Set<string>()
  for (const row of backup.rows.tunes) {
    const tune = tried(() => readTuneDoc(row))
    if (!tune) continue
    const own = backup.rows.arrangements.filter((a) => a['tuneId'] === tune.id)
    const arrangement = own.map((a) => tried(() => readArrangementDoc(a, tune))).find((a) => a !== undefined)
    const score = { tune, ...(arrangement ? { arrangement } : {}) }
    const name = freeName(tune.title, names)
    for (const { id, folder } of PIECES) {
      const format = FORMATS.find((f) => f.id === id)
      if (!format?.writes || !canWrite(format, score)) continue
      const content = finish(format.writes.writing(score))
      files[`${folder}/${name}.${format.endings[0] ?? ''}`] =
        typeof content === 'string' ? strToU8(content) : content
    }
  }
  return zipSync(files, { level: 6, mtime: backup.madeAt })
}

function tried<T>(work: () => T): T | undefined {
  try {
    return work()
  } catch {
    return undefined
  }
}

/** A title as the name of a file that is not there yet. */
function freeName(title: string, taken: Set<string>): string {
  const plain =
    title
      .replace(/[\\/:*?"<>|\p{Cc}]+/gu, '-')
      .slice(0, 80)
      .trim() || 'tune'
  let name = plain
  for (let n = 2; taken.has(name.toLowerCase()); n++) name = `${plain} ${n}`
  taken.add(name.toLowerCase())
  return name
}

/**
 * The text in a zip that brings everything back.
 * @throws ShelfZipError where it is no such file, is damaged, or would unpack to more than is read
 */
export function backupInZip(bytes: Uint8Array): string {
  let files: Record<string, Uint8Array>
  try {
    files = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        if (name !== WHOLE) return false
        if (originalSize > LARGEST)
          throw new ShelfZipError(message('files.shelfTooLarge', { most: LARGEST / 1_000_000 }))
        return true
      },
    })
  } catch (error) {
    if (error instanceof ShelfZipError) throw error
    throw new ShelfZipError(message('files.badZip'))
  }
  const whole = files[WHOLE]
  if (!whole) throw new ShelfZipError(message('files.otherZip'))
  return strFromU8(whole)
}
