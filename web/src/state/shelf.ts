import { present } from '@velvet-porch/core/invariant'
import { keyText } from '@velvet-porch/core/music'
import { LIMITS, type Score, type TuneDoc } from '@velvet-porch/core/document'
import { dayOfUse, lastDayOfUse } from './daysOfUse.ts'
import { db, type ShelfRow } from './db.ts'
import { newId } from '../newId.ts'
import { storing } from './storageTrouble.ts'

/** Days of use for which a removed tune lies in the bin. */
export const BIN_DAYS = 30

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
  await storing(() =>
    db.transaction('rw', db.tunes, db.shelf, async () => {
      await db.tunes.bulkAdd([...tunes])
      await db.shelf.bulkAdd(tunes.map((t) => shelfRow(t)))
    }),
  )
}

/** Puts a tune with its tab on the shelf. */
export async function addScore({ tune, arrangement }: Score): Promise<void> {
  await storing(() =>
    db.transaction('rw', db.tunes, db.shelf, db.arrangements, async () => {
      await db.tunes.add(tune)
      await db.shelf.add(shelfRow(tune))
      if (arrangement) await db.arrangements.add({ ...arrangement, id: arrangementId(tune.id) })
    }),
  )
}

/** Puts a tune in the bin. */
export async function binTune(id: string): Promise<void> {
  const removedOnDay = await dayOfUse()
  await storing(() => db.shelf.update(id, { removedAt: Date.now(), removedOnDay }))
}

export async function putBack(id: string): Promise<void> {
  await storing(() =>
    db.transaction('rw', db.shelf, async () => {
      const row = await db.shelf.get(id)
      if (!row) return
      const { removedAt: _, removedOnDay: __, ...kept } = row
      await db.shelf.put(kept)
    }),
  )
}

/** Copies a tune with its arrangements under new ids. */
export async function duplicateTune(id: string, title: string): Promise<string | undefined> {
  const copyId = newId()
  const copying = async () => {
    const tune = await db.tunes.get(id)
    if (!tune) return undefined
    const copy: TuneDoc = { ...tune, id: copyId, title: title.slice(0, LIMITS.title) }
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
  }
  return storing(() => db.transaction('rw', db.tunes, db.shelf, db.arrangements, copying))
}

/** The arrangement of a tune that stands on the bench. */
export const arrangementId = (tuneId: string) => `${tuneId}.a`

/** A name for a version of it that is kept. */
export const versionId = (tuneId: string) => `${tuneId}.v.${newId()}`

/** A tune in the bin, and for how many more days of use it lies there. */
export interface BinnedTune {
  readonly row: ShelfRow
  readonly daysLeft: number
}

/** What lies in the bin, last removed first. */
export async function binned(): Promise<BinnedTune[]> {
  const today = await lastDayOfUse()
  const rows = await db.shelf.where('removedAt').above(0).toArray()
  return rows
    .sort(
      (a, b) =>
        (b.removedOnDay ?? today) - (a.removedOnDay ?? today) || present(b.removedAt) - present(a.removedAt),
    )
    .map((row) => ({ row, daysLeft: BIN_DAYS - (today - (row.removedOnDay ?? today)) }))
}

/** Deletes for good what has lain in the bin for its days. */
export async function sweep(): Promise<void> {
  const today = await dayOfUse()
  const rows = await storing(() => db.shelf.where('removedAt').above(0).toArray())
  // A tune that was removed before days were counted begins to lie there today.
  for (const { id } of rows.filter((r) => r.removedOnDay === undefined))
    await storing(() => db.shelf.update(id, { removedOnDay: today }))
  const old = rows.filter((r) => r.removedOnDay !== undefined && today - r.removedOnDay >= BIN_DAYS)
  if (old.length > 0) await deleteForGood(old.map((r) => r.id))
}

/** Deletes tunes with all that belongs to them. */
export async function deleteForGood(ids: readonly string[]): Promise<void> {
  const { shelf, tunes, arrangements: tabs, history, handouts, teaching, logs, drafts, recordings } = db
  await storing(() =>
    db.transaction(
      'rw',
      [shelf, tunes, tabs, history, handouts, teaching, logs, drafts, recordings],
      async () => {
        const gone = [...ids]
        await history.where('tuneId').anyOf(gone).delete()
        await tabs.bulkDelete(await tabs.where('tuneId').anyOf(gone).primaryKeys())
        await handouts.bulkDelete(gone)
        await teaching.bulkDelete(gone)
        await drafts.bulkDelete(gone)
        await recordings.bulkDelete(gone)
        await logs.where('tuneId').anyOf(gone).delete()
        await tunes.bulkDelete(gone)
        await shelf.bulkDelete(gone)
      },
    ),
  )
}
