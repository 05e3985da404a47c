import { undo, type ArrangementDoc } from '@velvet-porch/core'
import { useLiveQuery } from 'dexie-react-hooks'
import { db } from '../store/db.ts'

/** The arrangement as it was before its last change, and what that change was called. */
export function usePrevious(
  doc: ArrangementDoc | null | undefined,
): { readonly doc: ArrangementDoc; readonly label: string } | undefined {
  const row = useLiveQuery(
    () => (doc ? db.history.where('[docId+undone]').equals([doc.id, 0]).last() : undefined),
    [doc?.id, doc?.rev],
  )
  if (!doc || !row) return undefined
  return { doc: undo(doc, row.command), label: row.command.label }
}
