import { keyText, type Score, type TuneDoc } from '@velvet-porch/core'
import { db, type ShelfRow } from './db.ts'

const WEEK_MS = 7 * 24 * 3600 * 1000

export function shelfRow(tune: TuneDoc, changedAt = Date.now()): ShelfRow {
  const first = tune.measures[0]!
  return {
    id: tune.id,
    title: tune.title,
    ...(tune.composer ? { composer: tune.composer } : {}),
    key: keyText(first.key),
    metre: `${first.metre.num}/${first.metre.den}`,
    measures: tune.measures.length,
    changedAt,
  }
}

/** Puts tunes on the shelf, all or none. */
export async function addTunes(tunes: readonly TuneDoc[]): Promise<void> {
  await db.transaction('rw', db.tunes, db.shelf, async () => {
    await db.tunes.bulkAdd([...tunes])
    await db.shelf.bulkAdd(tunes.map((t) => shelfRow(t)))
  })
}

/** Puts a tune with its tab on the shelf. */
export async function addScore({ tune, arrangement }: Score): Promise<void> {
  await db.transaction('rw', db.tunes, db.shelf, db.arrangements, async () => {
    await db.tunes.add(tune)
    await db.shelf.add(shelfRow(tune))
    if (arrangement) await db.arrangements.add({ ...arrangement, id: arrangementId(tune.id) })
  })
}

export async function removeTune(id: string): Promise<void> {
  await db.shelf.update(id, { removedAt: Date.now() })
}

export async function putBack(id: string): Promise<void> {
  await db.transaction('rw', db.shelf, async () => {
    const row = await db.shelf.get(id)
    if (!row) return
    const { removedAt: _, ...kept } = row
    await db.shelf.put(kept)
  })
}

/** Copies a tune with its arrangements under new ids. */
export async function duplicateTune(id: string, title: string): Promise<string | undefined> {
  const copyId = crypto.randomUUID()
  return db.transaction('rw', db.tunes, db.shelf, db.arrangements, async () => {
    const tune = await db.tunes.get(id)
    if (!tune) return undefined
    const copy: TuneDoc = { ...tune, id: copyId, title }
    await db.tunes.add(copy)
    await db.shelf.add(shelfRow(copy))
    const arrangements = await db.arrangements.where('tuneId').equals(id).toArray()
    await db.arrangements.bulkAdd(
      arrangements.map((a) => ({
        ...a,
        id: a.id === arrangementId(id) ? arrangementId(copyId) : versionId(copyId),
        tuneId: copyId,
      })),
    )
    return copyId
  })
}

/** The arrangement of a tune that stands on the bench. */
export const arrangementId = (tuneId: string) => `${tuneId}.a`

/** A name for a version of it that is kept. */
export const versionId = (tuneId: string) => `${tuneId}.v.${crypto.randomUUID()}`

/** Deletes for good what was taken off the shelf over a week ago. */
export async function sweep(): Promise<void> {
  const old = await db.shelf
    .where('removedAt')
    .below(Date.now() - WEEK_MS)
    .primaryKeys()
  if (old.length === 0) return
  const { shelf, tunes, arrangements: tabs, history, handouts, teaching, logs } = db
  await db.transaction('rw', [shelf, tunes, tabs, history, handouts, teaching, logs], async () => {
    const arrangements = await db.arrangements.where('tuneId').anyOf(old).primaryKeys()
    await db.history.where('tuneId').anyOf(old).delete()
    await db.arrangements.bulkDelete(arrangements)
    await handouts.bulkDelete(old)
    await teaching.bulkDelete(old)
    await logs.where('tuneId').anyOf(old).delete()
    await db.tunes.bulkDelete(old)
    await db.shelf.bulkDelete(old)
  })
}
