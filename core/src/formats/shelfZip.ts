import { strFromU8, strToU8, unzipSync, Zip, ZipDeflate, ZipPassThrough } from 'fflate'
import Joi from 'joi'
import { message, type Message } from '../messages/message.ts'
import type { ArrangementDoc } from '../document/arrangement.ts'
import { arrangementAsNow, tuneAsNow } from '../document/migrate/asNow.ts'
import type { TuneDoc } from '../document/tune.ts'
import type { Backup, BackupRow } from '../schema/backupSchema.ts'
import type { RecordingMark } from '../studio/recordingMarks.ts'
import { finish, scaled } from '../turns.ts'
import { readingBackupText } from './backupText.ts'
import { canWrite, FORMATS } from './formats.ts'
import { freeFileName } from './freeFileName.ts'

/** The file of a zip that brings everything back; the others are to be read without the app. */
const WHOLE = 'everything.json'

/** The largest content that is unpacked, in bytes. */
const LARGEST = 1_500_000_000

/** Where recordings lie, and the list of whose they are. */
const RECORDINGS = 'recordings/'
const RECORDINGS_LIST = 'recordings.json'

/** A recording that goes with a tune. */
export interface PackedRecording {
  /** Id of the tune. */
  readonly tune: string
  /** Name of its file, with the ending. */
  readonly name: string
  readonly bytes: Uint8Array
  readonly marks: readonly RecordingMark[]
}

/** Formats of the readable pieces, with their folders. */
const PIECES = [
  { id: 'abc', folder: 'tunes' },
  { id: 'chordpro', folder: 'songs' },
  { id: 'text', folder: 'tabs' },
] as const

const README = `This file holds everything that Velvet Porch keeps: ${WHOLE} brings it back (Settings, Your data).
The other files are there to be read without the app: tunes as ABC, songs as ChordPro, tabs as text, recordings as they came.
`

/** A file that holds no shelf. */
export class ShelfZipError extends Error {
  override readonly name = 'ShelfZipError'
  constructor(readonly says: Message<'files'>) {
    super(says.code)
  }
}

/** Shares of the work, as they are told: the file that brings everything back, then the readable pieces. */
const WHOLE_SHARE = 0.5

/** How hard it is packed, of 9: more would take twice the time for a tenth less. */
const LEVEL = 3

/** Bytes that are packed before the turn is given back. */
const LOT = 262_144

/**
 * Everything as a zip: the file that brings it back, and each tune and tab in a format that is read without the app. A document that cannot
 * be read is in the first all the same. Yields the share that is done.
 * @param text the whole as `backupText` writes it
 * @param recordings the recordings of tunes, put in as they are
 */
export function* zippingShelf(
  text: Uint8Array,
  recordings: readonly PackedRecording[] = [],
): Generator<number, Uint8Array> {
  const backup = (yield* scaled(readingBackupText(text), 0, 0.2)) as Backup
  const zip = new ZipWriter(backup.madeAt)
  // The first in the zip: a backup is known by it.
  const whole = zip.begin(WHOLE)
  for (let from = 0; from < text.length; from += LOT) {
    yield 0.2 + (WHOLE_SHARE - 0.2) * (from / text.length)
    whole.push(text.subarray(from, from + LOT), from + LOT >= text.length)
  }
  zip.add('README.txt', README)
  yield* packPieces(zip, backup)
  packRecordings(zip, recordings)
  return zip.end()
}

/** Each tune in what can be read without the app. */
function* packPieces(zip: ZipWriter, { rows }: Backup): Generator<number, void> {
  const names = new Set<string>()
  // A map: an id may be any text, the name of something that every object has among them.
  const tabs = new Map<string, BackupRow>()
  for (const tab of rows.arrangements) {
    const id = String(tab['tuneId'])
    if (!tabs.has(id)) tabs.set(id, tab)
  }
  for (const [i, row] of rows.tunes.entries()) {
    yield WHOLE_SHARE + (1 - WHOLE_SHARE) * (i / rows.tunes.length)
    const tab = tabs.get(String(row['id']))
    // Rows are the browser's own: what cannot be written from one of them is left out.
    const files = tried(() => piecesOf(row, tab)) ?? []
    if (files.length === 0) continue
    const name = freeFileName(String(row['title']), names)
    for (const { folder, ending, content } of files) zip.add(`${folder}/${name}.${ending}`, content)
  }
}

function piecesOf(row: BackupRow, tab: BackupRow | undefined) {
  const tune = tuneAsNow(row) as TuneDoc
  const arrangement = tab && (arrangementAsNow(tab) as ArrangementDoc)
  const score = { tune, ...(arrangement ? { arrangement } : {}) }
  return PIECES.flatMap(({ id, folder }) => {
    const format = FORMATS.find((f) => f.id === id)
    if (!format?.writes || !canWrite(format, score)) return []
    const { writing } = format.writes
    const content = tried(() => finish(writing(score)))
    return content === undefined ? [] : [{ folder, ending: format.endings[0] ?? '', content }]
  })
}

/** Writes a zip file by file, so that no more of it is held than what is packed already. */
class ZipWriter {
  readonly #parts: Uint8Array[] = []
  readonly #zip = new Zip((error, part) => {
    if (error) throw error
    this.#parts.push(part)
  })

  constructor(private readonly madeAt: string) {}

  /** A file whose content is pushed. @param packed true where its content is packed already */
  begin(name: string, packed = false): ZipDeflate | ZipPassThrough {
    const file = packed ? new ZipPassThrough(name) : new ZipDeflate(name, { level: LEVEL })
    file.mtime = this.madeAt
    this.#zip.add(file)
    return file
  }

  add(name: string, content: string | Uint8Array): void {
    this.begin(name).push(typeof content === 'string' ? strToU8(content) : content, true)
  }

  end(): Uint8Array {
    this.#zip.end()
    const bytes = new Uint8Array(this.#parts.reduce((sum, part) => sum + part.length, 0))
    let at = 0
    for (const part of this.#parts) {
      bytes.set(part, at)
      at += part.length
    }
    return bytes
  }
}

const RECORDINGS_SCHEMA = Joi.array()
  .max(10_000)
  .items(
    Joi.object({
      tune: Joi.string().max(200).required(),
      name: Joi.string().max(500).required(),
      file: Joi.string().max(500).required(),
      marks: Joi.array()
        .max(10_000)
        .items(
          Joi.object({ played: Joi.number().min(0).required(), seconds: Joi.number().min(0).required() }),
        )
        .required(),
    }),
  )

function packRecordings(zip: ZipWriter, recordings: readonly PackedRecording[]): void {
  const names = new Set<string>()
  const listed = recordings.map(({ tune, name, marks, bytes }) => {
    const ending = /\.[a-z0-9]{1,5}$/i.exec(name)?.[0] ?? ''
    const file = `${RECORDINGS}${freeFileName(name.slice(0, name.length - ending.length), names, ending)}`
    // Sound is packed already.
    zip.begin(file, true).push(bytes, true)
    return { tune, name, file, marks }
  })
  if (listed.length > 0) zip.add(RECORDINGS_LIST, JSON.stringify(listed))
}

function tried<T>(work: () => T): T | undefined {
  try {
    return work()
  } catch {
    return undefined
  }
}

/**
 * The text in a zip that brings everything back, as `readingBackupText` reads it.
 * @throws ShelfZipError where it is no such file, is damaged, or would unpack to more than is read
 */
export function backupInZip(bytes: Uint8Array): Uint8Array {
  const whole = unpacked(bytes, (name) => name === WHOLE)[WHOLE]
  if (!whole) throw new ShelfZipError(message('files.otherZip'))
  return whole
}

/**
 * The recordings in such a zip; none where it has none, or a list of them that cannot be read.
 * @throws ShelfZipError where it is damaged, or would unpack to more than is read
 */
export function recordingsInZip(bytes: Uint8Array): PackedRecording[] {
  const files = unpacked(bytes, (name) => name === RECORDINGS_LIST || name.startsWith(RECORDINGS))
  const list = files[RECORDINGS_LIST]
  if (!list) return []
  const { error, value } = RECORDINGS_SCHEMA.validate(
    tried<unknown>(() => JSON.parse(strFromU8(list))),
    { stripUnknown: true, presence: 'required' },
  )
  if (error) return []
  return (value as (Omit<PackedRecording, 'bytes'> & { readonly file: string })[]).flatMap(
    ({ file, ...rest }) => {
      const bytes = files[file]
      return bytes ? [{ ...rest, bytes }] : []
    },
  )
}

/** The files of a zip that are wanted, as long as they are not too much together. */
function unpacked(bytes: Uint8Array, isWanted: (name: string) => boolean): Record<string, Uint8Array> {
  let left = LARGEST
  try {
    return unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        if (!isWanted(name)) return false
        left -= originalSize
        if (left < 0) throw new ShelfZipError(message('files.shelfTooLarge', { most: LARGEST / 1_000_000 }))
        return true
      },
    })
  } catch (error) {
    if (error instanceof ShelfZipError) throw error
    throw new ShelfZipError(message('files.badZip'))
  }
}
