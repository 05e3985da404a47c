import Dexie, { type Table, type Transaction } from 'dexie'
import { DEFAULT_PLAYER, type Player } from '@velvet-porch/core/instrument'
import {
  arrangementAsNow,
  commandAsNow,
  orderedHash,
  type ArrangementDoc,
  type Command,
  type TuneDoc,
} from '@velvet-porch/core/document'
import type { TasteDoc } from '@velvet-porch/core/taste'
import type { LogEntry, Unit } from '@velvet-porch/core/lesson'
import type { HandoutDoc } from '@velvet-porch/core/output/handout'
import type { OwnPattern } from '@velvet-porch/core/schema'
import type {
  Assignment,
  LessonRecord,
  RecordingMark,
  RepertoireEntry,
  SetList,
  StudentRecord,
} from '@velvet-porch/core/studio'

/** What the Shelf shows of a tune; kept beside the documents so that long shelves list quickly. */
export interface ShelfRow {
  id: string
  title: string
  composer?: string
  key: string
  metre: string
  measures: number
  changedAt: number
  /** The set of tunes that it came with, by name. */
  set?: string
  /** Set when the tune was put in the bin; cleared when it is put back. */
  removedAt?: number
  /** The day of use on which it was put there (see `daysOfUse.ts`). */
  removedOnDay?: number
}

/** Text of a tune that was typed and is not stored in the tune yet. */
export interface DraftRow {
  /** The tune's. */
  id: string
  text: string
  /** Revision of the tune when this text was typed. */
  rev: number
  /** Short names of the texts that it grew from: one of them is what storage holds, unless another window wrote. */
  ancestors: readonly string[]
  at: number
}

/** The count of days on which the app was used. */
export interface MetaRow {
  id: string
  day: string
  count: number
}

export type DocKind = 'tune' | 'arrangement'

/**
 * One command of one document. A tune and its arrangement have one history: rows of one step (a change of both) are
 * taken back together. Rows with `undone` are the future that redo would bring back.
 */
export interface HistoryRow {
  seq?: number
  docId: string
  /** The tune that the document belongs to. */
  tuneId: string
  step: string
  at: number
  kind: DocKind
  command: Command
  undone: 0 | 1
}

/** A hand that the teacher works for. */
export interface PlayerRow extends Player {
  id: string
}

/** What a teacher notes while teaching a tune. */
export interface TeachingRow {
  /** The tune's. */
  id: string
  /** Words to each piece, by the id of its first measure and the tick in it. */
  notes: Readonly<Record<string, string>>
}

/** What is known of a student's practice of a tune: all logs that came back, joined. */
export interface LogRow {
  id: string
  tuneId: string
  readAt: number
  /** What a piece is in it; a phrase where it did not say. */
  unit?: Unit
  entries: readonly LogEntry[]
}

/** A recording that the teacher keeps of a tune, with the measures that were marked in it. It is in no file with everything. */
export interface RecordingRow {
  /** The tune's. */
  id: string
  name: string
  sound: Blob
  marks: readonly RecordingMark[]
}

/** Arrangements written before hands had techniques get the usual ones; what was up to date stays so. */
function withWholePlayer(doc: ArrangementDoc, tune: TuneDoc | undefined): ArrangementDoc {
  const setup = { ...doc.setup, player: { ...DEFAULT_PLAYER, ...doc.setup.player } }
  const fresh = tune && orderedHash(tune, doc.setup, doc.regions) === doc.inputHash
  return { ...doc, setup, ...(fresh ? { inputHash: orderedHash(tune, setup, doc.regions) } : {}) }
}

class PorchDb extends Dexie {
  shelf!: Table<ShelfRow, string>
  tunes!: Table<TuneDoc, string>
  arrangements!: Table<ArrangementDoc, string>
  history!: Table<HistoryRow, number>
  players!: Table<PlayerRow, string>
  patterns!: Table<OwnPattern, string>
  handouts!: Table<HandoutDoc, string>
  teaching!: Table<TeachingRow, string>
  logs!: Table<LogRow, string>
  drafts!: Table<DraftRow, string>
  meta!: Table<MetaRow, string>
  students!: Table<StudentRecord, string>
  assignments!: Table<Assignment, string>
  lessons!: Table<LessonRecord, string>
  repertoire!: Table<RepertoireEntry, string>
  sets!: Table<SetList, string>
  recordings!: Table<RecordingRow, string>
  tastes!: Table<TasteDoc, string>

  constructor() {
    // The query cache would clone long documents at every change; live queries read the database instead.
    super('velvet-porch', { cache: 'disabled' })
    this.version(1).stores({
      shelf: 'id, changedAt, removedAt',
      tunes: 'id',
      arrangements: 'id, tuneId',
      history: '++seq, docId, [docId+undone]',
    })
    this.version(2)
      .stores({ players: 'id, name' })
      .upgrade(async (tx) => {
        for (const doc of await tx.table<ArrangementDoc>('arrangements').toArray()) {
          const tune = await tx.table<TuneDoc>('tunes').get(doc.tuneId)
          await tx.table<ArrangementDoc>('arrangements').put(withWholePlayer(doc, tune))
        }
      })
    this.version(3).stores({ patterns: 'id, name' })
    this.version(4)
      .stores({ history: '++seq, docId, tuneId, [docId+undone], [tuneId+undone]' })
      .upgrade((tx) =>
        tx
          .table<HistoryRow>('history')
          .toCollection()
          .modify((row) => {
            row.tuneId = row.kind === 'tune' ? row.docId : row.docId.replace(/\.a$/, '')
            row.step = row.command.id
            row.at = 0
          }),
      )
    this.version(5).stores({ handouts: 'id', teaching: 'id', logs: 'id, tuneId' })
    this.version(6).stores({ drafts: 'id', meta: 'id' })
    this.version(7)
      .stores({})
      .upgrade(async (tx) => {
        await arrangementsAsNow(tx)
        const history = tx.table<HistoryRow>('history').filter((row) => row.kind === 'arrangement')
        await history.modify((row) => {
          row.command = commandAsNow(row.command)
        })
      })
    this.version(8).stores({}).upgrade(arrangementsAsNow)
    this.version(9).stores({
      students: 'id',
      assignments: 'id, studentId, tuneId',
      lessons: 'id, studentId, day',
      repertoire: 'id',
      sets: 'id, name',
      recordings: 'id',
    })
    this.version(10).stores({ tastes: 'id, name' })
  }
}

async function arrangementsAsNow(tx: Transaction): Promise<void> {
  const arrangements = tx.table<ArrangementDoc>('arrangements')
  await arrangements.toCollection().modify((doc, ref) => {
    ref.value = arrangementAsNow(doc) as ArrangementDoc
  })
}

/** The version of the tables as they are now: a backup says which it is of. */
export const TABLES_VERSION = 10

export const db = new PorchDb()
