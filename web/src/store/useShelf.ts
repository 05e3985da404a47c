import { useLiveQuery } from 'dexie-react-hooks'
import { db, type ShelfRow } from './db.ts'

const NOTHING: readonly ShelfRow[] = []

/** The tunes on the shelf, last touched first. */
export function useShelf(): readonly ShelfRow[] {
  return (
    useLiveQuery(async () =>
      (await db.shelf.orderBy('changedAt').reverse().toArray()).filter((r) => !r.removedAt),
    ) ?? NOTHING
  )
}
