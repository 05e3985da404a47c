import type { ArrangementDoc, Id, TuneDoc } from '@velvet-porch/core/document'
import type { Finding } from '@velvet-porch/core/audit'
import { chosenNotes } from '@velvet-porch/core/edit'
import { useMemo } from 'react'
import { useStore } from 'zustand'
import type { Writing } from '../../../score/edit/useWriting.ts'
import { lockedTargets } from '../shownNotes.ts'
import type { BenchStore } from './benchStore.ts'

/** What is marked on the sheet: changed and locked notes, faults, and the notes that the pen's tools change. */
export function useLit(
  store: BenchStore,
  tune: TuneDoc | undefined,
  doc: ArrangementDoc | null | undefined,
  changed: ReadonlySet<Id> | undefined,
  faults: Readonly<Record<number, readonly Finding[]>>,
  pen: Writing | undefined,
) {
  const marked = useStore(store, (s) => s.marked)
  const { choosing, cell } = pen ?? {}
  const chosen = useMemo(() => {
    const range = marked ?? (cell && { from: cell.measure, to: cell.measure })
    if (!choosing || !range || !tune || !doc) return undefined
    return new Set(chosenNotes(tune, doc.base, range.from, range.to, choosing).map((n) => n.id))
  }, [choosing, marked, cell, tune, doc])
  return useMemo(
    () => ({ changed, locked: lockedTargets(tune, doc), faults, chosen }),
    [changed, tune, doc, faults, chosen],
  )
}
