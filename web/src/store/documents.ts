import { command, redo, undo, type ArrangementDoc, type TuneDoc } from '@velvet-porch/core'
import type { Table } from 'dexie'
import { db, type DocKind, type HistoryRow } from './db.ts'
import { shelfRow } from './shelf.ts'

interface DocOf {
  tune: TuneDoc
  arrangement: ArrangementDoc
}

/** A recipe edits a draft of the document in place. */
export type Recipe<K extends DocKind> = Parameters<typeof command<DocOf[K]>>[3]

const tableOf = <K extends DocKind>(kind: K) =>
  (kind === 'tune' ? db.tunes : db.arrangements) as unknown as Table<DocOf[K], string>

/**
 * Applies a change as one command: document, history and shelf are written in one transaction, so a killed tab has
 * either all of it or nothing. What had been undone is forgotten.
 * @returns false where the document is gone or nothing changes
 */
export async function change<K extends DocKind>(
  kind: K,
  docId: string,
  label: string,
  recipe: Recipe<K>,
): Promise<boolean> {
  return db.transaction('rw', db.tunes, db.arrangements, db.history, db.shelf, async () => {
    const doc = await tableOf(kind).get(docId)
    if (!doc) return false
    const made = command(doc, crypto.randomUUID(), label, recipe)
    if (!made) return false
    await tableOf(kind).put(made.doc)
    await db.history.where('[docId+undone]').equals([docId, 1]).delete()
    await db.history.add({ docId, kind, command: made.command, undone: 0 })
    await touch(kind, made.doc)
    return true
  })
}

/** Takes back the last command of a document, or brings the next one again. */
export async function step(docId: string, direction: 'undo' | 'redo'): Promise<HistoryRow | undefined> {
  return db.transaction('rw', db.tunes, db.arrangements, db.history, db.shelf, async () => {
    const rows = db.history.where('[docId+undone]').equals([docId, direction === 'undo' ? 0 : 1])
    const row = direction === 'undo' ? await rows.last() : await rows.first()
    if (!row) return undefined
    const table = tableOf(row.kind)
    const doc = await table.get(docId)
    if (!doc) return undefined
    const next = direction === 'undo' ? undo(doc, row.command) : redo(doc, row.command)
    await table.put(next)
    await db.history.update(row.seq!, { undone: direction === 'undo' ? 1 : 0 })
    await touch(row.kind, next)
    return row
  })
}

/** Labels of what undo and redo would do. */
export async function labelsOf(docId: string): Promise<{ undo?: string; redo?: string }> {
  const back = await db.history.where('[docId+undone]').equals([docId, 0]).last()
  const forth = await db.history.where('[docId+undone]').equals([docId, 1]).first()
  return { ...(back ? { undo: back.command.label } : {}), ...(forth ? { redo: forth.command.label } : {}) }
}

async function touch(kind: DocKind, doc: TuneDoc | ArrangementDoc): Promise<void> {
  if (kind === 'tune') {
    const before = await db.shelf.get(doc.id)
    await db.shelf.put({
      ...shelfRow(doc as TuneDoc),
      ...(before?.removedAt ? { removedAt: before.removedAt } : {}),
    })
  } else await db.shelf.update((doc as ArrangementDoc).tuneId, { changedAt: Date.now() })
}
