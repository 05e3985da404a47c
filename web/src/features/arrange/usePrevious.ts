import { undo, type ArrangementDoc } from '@velvet-porch/core/document'
import { useMemo } from 'react'
import { db } from '../../state/db.ts'
import { useStored } from '../../state/useStored.ts'

/** What the last change of an arrangement was called, and the arrangement before it. */
export function usePrevious(
  doc: ArrangementDoc | null | undefined,
): { readonly doc: () => ArrangementDoc; readonly label: string } | undefined {
  const row = useStored(
    () => (doc ? db.history.where('[docId+undone]').equals([doc.id, 0]).last() : undefined),
    [doc?.id, doc?.rev],
  )
  return useMemo(
    () => (doc && row ? { doc: () => undo(doc, row.command), label: row.command.label } : undefined),
    [doc, row],
  )
}
