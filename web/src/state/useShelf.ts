import { db, type ShelfRow } from './db.ts'
import { useStored } from './useStored.ts'

const NOTHING: readonly ShelfRow[] = []

/** The tunes on the shelf, last touched first; none while nobody looks for them. */
export function useShelf(wanted = true): readonly ShelfRow[] {
  const rows = useStored(
    async () =>
      wanted
        ? (await db.shelf.orderBy('changedAt').reverse().toArray()).filter((r) => !r.removedAt)
        : NOTHING,
    [wanted],
  )
  return rows ?? NOTHING
}
