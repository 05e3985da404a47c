import { strFromU8, strToU8, unzipSync, zipSync, type Zippable } from 'fflate'
import Joi from 'joi'
import { message, type Message } from '../messages/message.ts'
import type { Backup } from '../schema/backupSchema.ts'
import { readArrangementDoc } from '../schema/arrangementSchema.ts'
import { readTuneDoc } from '../schema/tuneSchema.ts'
import type { RecordingMark } from '../studio/recordingMarks.ts'
import { finish } from '../turns.ts'
import { canWrite, FORMATS } from './formats.ts'

/** The file of a zip that brings everything back; the others are to be read without the app. */
const WHOLE = 'everything.json'

/** The largest content that is unpacked, in bytes. */
const LARGEST = 400_000_000

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

/**
 * Everything as a zip: the file that brings it back, and each tune and tab in a format that is read without the app. A document that cannot
 * be read is in the first all the same.
 * @param recordings the recordings of tunes, put in as they are
 */
export function shelfZip(backup: Backup, recordings: readonly PackedRecording[] = []): Uint8Array {
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
  packRecordings(files, recordings)
  return zipSync(files, { level: 6, mtime: backup.madeAt })
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

function packRecordings(files: Zippable, recordings: readonly PackedRecording[]): void {
  const names = new Set<string>()
  const listed = recordings.map(({ tune, name, marks, bytes }) => {
    const ending = /\.[a-z0-9]{1,5}$/i.exec(name)?.[0] ?? ''
    const file = `${RECORDINGS}${freeName(name.slice(0, name.length - ending.length), names)}${ending}`
    // Sound is packed already.
    files[file] = [bytes, { level: 0 }]
    return { tune, name, file, marks }
  })
  if (listed.length > 0) files[RECORDINGS_LIST] = strToU8(JSON.stringify(listed))
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
  const whole = unpacked(bytes, (name) => name === WHOLE)[WHOLE]
  if (!whole) throw new ShelfZipError(message('files.otherZip'))
  return strFromU8(whole)
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
