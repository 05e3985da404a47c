import { db, type ShelfRow } from './db.ts'
import { useStored } from './useStored.ts'

const NOTHING: readonly ShelfRow[] = []

/** The tunes on the shelf, last touched first. */
export function useShelf(): readonly ShelfRow[] {
  return (
    useStored(async () =>
      (await db.shelf.orderBy('changedAt').reverse().toArray()).filter((r) => !r.removedAt),
    ) ?? NOTHING
  )
}
