import Joi from 'joi'
import type { ArrangementDoc } from '../document/arrangement.ts'
import { arrangementAsNow, commandAsNow, tuneAsNow } from '../document/migrate/asNow.ts'
import type { Command } from '../document/command.ts'
import { LIMITS } from '../document/limits.ts'
import type { TuneDoc } from '../document/tune.ts'
import { readArrangementDoc } from './arrangementSchema.ts'
import { id, SchemaError, validated } from './common.ts'
import { assignment, lessonRecord, repertoireEntry, setList, studentRecord } from './studioSchema.ts'
import { taste } from './tasteSchema.ts'
import { readTuneDoc } from './tuneSchema.ts'

export const BACKUP_FORMAT = 'velvet-porch-backup'
export const TUNE_FILE_FORMAT = 'velvet-porch-tune'

/** The tables of a backup. Documents are kept as they are, those too that cannot be read: nothing is thrown away. */
export const BACKUP_TABLES = [
  'shelf',
  'tunes',
  'arrangements',
  'history',
  'players',
  'patterns',
  'handouts',
  'teaching',
  'logs',
  'drafts',
  'meta',
  'students',
  'assignments',
  'lessons',
  'repertoire',
  'sets',
  'tastes',
] as const
export type BackupTable = (typeof BACKUP_TABLES)[number]

/** A row of any table. */
export type BackupRow = Readonly<Record<string, unknown>>

/** One file with everything that a browser keeps. */
export interface Backup {
  readonly format: typeof BACKUP_FORMAT
  readonly version: 1
  /** Version of the tables that the rows are of. */
  readonly tables: number
  readonly madeAt: string
  /** How the teacher likes things shown. */
  readonly prefs?: unknown
  readonly rows: Readonly<Record<BackupTable, readonly BackupRow[]>>
}

/** A tune with all its arrangements as one file. */
export interface TuneFile {
  readonly format: typeof TUNE_FILE_FORMAT
  readonly version: 1
  readonly tune: TuneDoc
  readonly arrangements: readonly ArrangementDoc[]
}

const withId = Joi.object({ id: id.required() }).unknown()
const ofTune = Joi.object({ tuneId: id.required() }).unknown()
const time = Joi.number().integer().required()
const text = (most: number) => Joi.string().allow('').max(most)

const shelfRow = Joi.object({
  id: id.required(),
  title: text(LIMITS.title).required(),
  composer: text(LIMITS.composer),
  key: text(60).required(),
  metre: text(20).required(),
  measures: Joi.number().integer().min(0).required(),
  changedAt: time,
  set: text(120),
  removedAt: Joi.number().integer(),
  removedOnDay: Joi.number().integer().min(0),
})

const historyRow = Joi.object({
  seq: Joi.number().integer().min(0),
  docId: id.required(),
  tuneId: id.required(),
  step: text(120).required(),
  at: time,
  kind: Joi.string().valid('tune', 'arrangement').required(),
  undone: Joi.valid(0, 1).required(),
  command: Joi.object({
    id: id.required(),
    label: text(2000).required(),
    patches: Joi.array().required(),
    inverse: Joi.array().required(),
  }).required(),
})

/** The rows of each table of a backup. */
export const rows: Record<BackupTable, Joi.Schema> = {
  shelf: shelfRow,
  tunes: withId,
  arrangements: withId.keys({ tuneId: id.required() }),
  history: historyRow,
  players: withId.keys({ name: text(200).required() }),
  patterns: withId.keys({ name: text(60).required() }),
  handouts: withId,
  teaching: withId,
  logs: withId.concat(ofTune),
  drafts: withId.keys({
    text: text(LIMITS.sourceText).required(),
    rev: Joi.number().integer().required(),
    ancestors: Joi.array().items(text(60)).max(100).required(),
    at: time,
  }),
  meta: withId.keys({ day: text(20).required(), count: Joi.number().integer().min(0).required() }),
  students: studentRecord,
  assignments: assignment,
  lessons: lessonRecord,
  repertoire: repertoireEntry,
  sets: setList,
  tastes: taste,
}

/** A backup whose tables hold such rows. */
export const backupOf = (of: Record<BackupTable, Joi.Schema>): Joi.Schema =>
  Joi.object({
    format: Joi.string().valid(BACKUP_FORMAT).required(),
    version: Joi.number().valid(1).required(),
    tables: Joi.number().integer().min(1).required(),
    madeAt: text(40).required(),
    prefs: Joi.any(),
    rows: Joi.object(
      Object.fromEntries(BACKUP_TABLES.map((t) => [t, Joi.array().items(of[t]).default([])])),
    ).required(),
  })

const backup = backupOf(rows)

const WHAT = 'This is not a file with everything'

/**
 * Reads a backup.
 * @param newest the version of the tables that this app knows
 * @throws SchemaError where it is none, is damaged, or was made by a newer version of the app
 */
export function readBackup(value: unknown, newest: number): Backup {
  const read = validated<Backup>(backup, value, WHAT)
  if (read.tables > newest)
    throw new SchemaError(WHAT, 'tables', 'it was saved by a newer version of the app; update this one first')
  const all = Object.fromEntries(
    BACKUP_TABLES.map((t) => [t, (read.rows[t] ?? []).map((row) => rowAsNow(t, row))]),
  )
  return { ...read, rows: all as unknown as Backup['rows'] }
}

/** A row of a table in today's shape. */
function rowAsNow(table: BackupTable, row: BackupRow): BackupRow {
  if (table === 'tunes') return tuneAsNow(row) as BackupRow
  if (table === 'arrangements') return arrangementAsNow(row) as BackupRow
  if (table !== 'history' || row['kind'] !== 'arrangement') return row
  return { ...row, command: commandAsNow(row['command'] as Command) }
}

/** A tune file that holds such a tune and such arrangements. */
export const tuneFileOf = (ofTune: Joi.Schema, ofArrangement: Joi.Schema): Joi.Schema =>
  Joi.object({
    format: Joi.string().valid(TUNE_FILE_FORMAT).required(),
    version: Joi.number().valid(1).required(),
    tune: ofTune.required(),
    arrangements: Joi.array().items(ofArrangement).max(200).required(),
  })

/** Reads a tune with its arrangements from a file. @throws SchemaError naming the first wrong place */
export function readTuneFile(value: unknown): TuneFile {
  const file = validated<TuneFile>(
    tuneFileOf(Joi.object(), Joi.object()),
    value,
    'This is not a tune with its arrangements',
  )
  const tune = readTuneDoc(file.tune)
  return { ...file, tune, arrangements: file.arrangements.map((a) => readArrangementDoc(a, tune)) }
}
