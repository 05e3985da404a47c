import { present } from '@velvet-porch/core/invariant'
import {
  command,
  commandTo,
  redo,
  undo,
  type ArrangementDoc,
  type Command,
  type Score,
  type TuneDoc,
} from '@velvet-porch/core/document'
import type { Table } from 'dexie'
import { db, type DocKind, type HistoryRow } from './db.ts'
import { arrangementId, shelfRow } from './shelf.ts'
import { newId } from '../newId.ts'
import { storing } from './storageTrouble.ts'
import { allWritten } from './unwritten.ts'
import { mayWrite } from './writeLock.ts'

interface DocOf {
  tune: TuneDoc
  arrangement: ArrangementDoc
}

/** A recipe edits a draft of the document in place. */
export type DraftRecipe<K extends DocKind> = Parameters<typeof command<DocOf[K]>>[3]

const tableOf = <K extends DocKind>(kind: K) =>
  (kind === 'tune' ? db.tunes : db.arrangements) as unknown as Table<DocOf[K], string>

const writing = <T>(work: () => Promise<T>): Promise<T> =>
  storing(() => db.transaction('rw', db.tunes, db.arrangements, db.history, db.shelf, work))

/**
 * Applies a change as one command: document, history and shelf are written in one transaction, so a killed tab has
 * either all of it or nothing. What had been undone is forgotten.
 * @returns false where the document is gone, nothing changes, or another window writes the tune
 */
export async function change<K extends DocKind>(
  kind: K,
  docId: string,
  label: string,
  recipe: DraftRecipe<K>,
): Promise<boolean> {
  await allWritten()
  return writing(async () => {
    const doc = await tableOf(kind).get(docId)
    if (!doc) return false
    const tuneId = kind === 'tune' ? docId : (doc as ArrangementDoc).tuneId
    if (!mayWrite(tuneId)) return false
    const made = command(doc, newId(), label, recipe)
    if (!made) return false
    await forget(tuneId)
    await put(kind, tuneId, made, newId())
    return true
  })
}

/** The score after an edit, or undefined where it is refused. */
export type ScoreEdit = (score: Score) => Score | undefined

interface Made<T> {
  readonly doc: T
  readonly command: Command
}

/** Takes an arrangement that cannot be read off its tune, with the steps of its history: they could not be taken back. */
export async function setTabAside(tuneId: string): Promise<void> {
  const id = arrangementId(tuneId)
  await writing(async () => {
    await db.arrangements.delete(id)
    await db.history
      .where('tuneId')
      .equals(tuneId)
      .filter((row) => row.docId === id)
      .delete()
  })
}

/** One edit of a score as the commands that it makes, and the revisions that they apply to. */
export interface ScoreStep {
  readonly id: string
  readonly label: string
  readonly edit: ScoreEdit
  readonly base: { readonly tune: number; readonly arrangement: number | undefined }
  readonly tune: Made<TuneDoc> | undefined
  readonly arrangement: Made<ArrangementDoc> | undefined
  /** The tune's first arrangement: nothing that could be taken back. */
  readonly first: ArrangementDoc | undefined
}

/** What an edit does to a tune and its arrangement, as one step; undefined where nothing changes. */
export function stepOf(score: Score, label: string, edit: ScoreEdit): ScoreStep | undefined {
  const next = edit(score)
  if (!next) return undefined
  const id = newId()
  const { tune, arrangement } = score
  const ofTune = next.tune === tune ? undefined : commandTo(tune, id, label, next.tune)
  const ofTab =
    arrangement && next.arrangement && next.arrangement !== arrangement
      ? commandTo(arrangement, id, label, next.arrangement)
      : undefined
  const first = arrangement ? undefined : next.arrangement
  if (!ofTune && !ofTab && !first) return undefined
  const base = { tune: tune.rev, arrangement: arrangement?.rev }
  return { id, label, edit, base, tune: ofTune, arrangement: ofTab, first }
}

/**
 * Applies an edit of the score to what storage holds now: tune and arrangement change in one step.
 * @returns false where nothing changes
 */
export async function changeScore(tuneId: string, label: string, edit: ScoreEdit): Promise<boolean> {
  return writing(async () => {
    const score = await storedScore(tuneId)
    const step = score && stepOf(score, label, edit)
    if (!step) return false
    await putStep(tuneId, step)
    return true
  })
}

/**
 * Writes steps that followed one another on the page, all or none.
 * @returns false where storage holds another state than the one they begin from: nothing is written then
 */
export async function putSteps(tuneId: string, steps: readonly ScoreStep[]): Promise<boolean> {
  return writing(async () => {
    const stored = await storedScore(tuneId)
    const { base } = steps[0]!
    if (stored?.tune.rev !== base.tune || stored.arrangement?.rev !== base.arrangement) return false
    for (const step of steps) await putStep(tuneId, step)
    return true
  })
}

/** A tune and its arrangement as storage holds them. */
export async function storedScore(tuneId: string): Promise<Score | undefined> {
  const tune = await db.tunes.get(tuneId)
  const arrangement = await db.arrangements.get(arrangementId(tuneId))
  return tune && { tune, ...(arrangement ? { arrangement } : {}) }
}

async function putStep(tuneId: string, { id, tune, arrangement, first }: ScoreStep): Promise<void> {
  if (first) await db.arrangements.put(first)
  if (tune || arrangement) await forget(tuneId)
  if (tune) await put('tune', tuneId, tune, id)
  if (arrangement) await put('arrangement', tuneId, arrangement, id)
}

/** What had been undone cannot come back after another change. */
const forget = (tuneId: string) => db.history.where('[tuneId+undone]').equals([tuneId, 1]).delete()

async function put<K extends DocKind>(
  kind: K,
  tuneId: string,
  made: Made<DocOf[K]>,
  step: string,
): Promise<void> {
  await tableOf(kind).put(made.doc)
  const row = { docId: made.doc.id, tuneId, step, at: Date.now(), kind, command: made.command }
  await db.history.add({ ...row, undone: 0 })
  await touch(kind, made.doc)
}

/** Takes back the last step of a tune and its arrangement, or brings the next one again. */
export async function step(tuneId: string, direction: 'undo' | 'redo'): Promise<HistoryRow | undefined> {
  if (!mayWrite(tuneId)) return undefined
  await allWritten()
  return writing(async () => {
    const rows = () => db.history.where('[tuneId+undone]').equals([tuneId, direction === 'undo' ? 0 : 1])
    const row = direction === 'undo' ? await rows().last() : await rows().first()
    if (!row) return undefined
    const all = await rows()
      .filter((r) => r.step === row.step)
      .toArray()
    for (const part of direction === 'undo' ? all.reverse() : all) {
      const table = tableOf(part.kind)
      const doc = await table.get(part.docId)
      if (!doc) continue
      const next = direction === 'undo' ? undo(doc, part.command) : redo(doc, part.command)
      await table.put(next)
      await db.history.update(present(part.seq), { undone: direction === 'undo' ? 1 : 0 })
      await touch(part.kind, next)
    }
    return row
  })
}

/** One step as the history lists it. */
export interface HistoryStep {
  readonly step: string
  readonly label: string
  readonly at: number
  readonly undone: boolean
}

/** Every step of a tune since it came in, oldest first; those that were taken back at the end. */
export async function historyOf(tuneId: string): Promise<HistoryStep[]> {
  const rows = await db.history.where('tuneId').equals(tuneId).sortBy('seq')
  const steps = new Map<string, HistoryStep>()
  for (const { step, command: c, at, undone } of rows)
    if (!steps.has(step)) steps.set(step, { step, label: c.label, at, undone: undone === 1 })
  return [...steps.values()]
}

/** A tune as it came in: every step of its history taken back, on a copy. */
export async function openingOf(tuneId: string): Promise<TuneDoc | undefined> {
  await allWritten()
  const tune = await db.tunes.get(tuneId)
  const rows = await db.history
    .where('[tuneId+undone]')
    .equals([tuneId, 0])
    .filter((row) => row.kind === 'tune')
    .toArray()
  return tune && rows.reduceRight((doc, row) => undo(doc, row.command), tune)
}

/** Goes back or forth until so many steps stand. */
export async function goTo(tuneId: string, steps: number): Promise<void> {
  const now = (await historyOf(tuneId)).filter((s) => !s.undone).length
  for (let i = now; i > steps; i--) await step(tuneId, 'undo')
  for (let i = now; i < steps; i++) await step(tuneId, 'redo')
}

/** Labels of what undo and redo would do. */
export async function labelsOf(tuneId: string): Promise<{ undo?: string; redo?: string }> {
  const back = await db.history.where('[tuneId+undone]').equals([tuneId, 0]).last()
  const forth = await db.history.where('[tuneId+undone]').equals([tuneId, 1]).first()
  return { ...(back ? { undo: back.command.label } : {}), ...(forth ? { redo: forth.command.label } : {}) }
}

async function touch(kind: DocKind, doc: TuneDoc | ArrangementDoc): Promise<void> {
  if (kind === 'tune') {
    const before = await db.shelf.get(doc.id)
    await db.shelf.put({
      ...shelfRow(doc as TuneDoc),
      ...(before?.set === undefined ? {} : { set: before.set }),
      ...(before?.removedAt ? { removedAt: before.removedAt } : {}),
    })
  } else await db.shelf.update((doc as ArrangementDoc).tuneId, { changedAt: Date.now() })
}
