import type { ArrangementDoc, Id, TuneDoc, Variant } from '@velvet-porch/core/document'
import { createContext, useContext, useMemo } from 'react'
import { useStore } from 'zustand'
import type { Writing } from '../../../score/edit/useWriting.ts'
import type { MarkedMeasures } from '../../../score/sheet/selection.ts'
import type { SheetModel, SheetPosition } from '../../../score/sheet/sheetModel.ts'
import type { BenchArranger } from '../useArranger.ts'
import type { useAudit } from '../useAudit.ts'
import type { Look } from './usePreview.ts'
import type { BenchState, BenchStore } from './benchStore.ts'

/**
 * What stands around the sheet speaks of this: the page as it was when there was last time to draw it. Who types does not
 * wait for it.
 */
export interface BenchPage {
  readonly id: Id
  readonly tune: TuneDoc | undefined
  readonly doc: ArrangementDoc | null
  /** The page as it is shown. */
  readonly model: SheetModel
  /** The page in its signs, where it is shown written out. */
  readonly signs: SheetModel
  /** What is played where the page is shown written out. */
  readonly out: ArrangementDoc | undefined
  readonly position: SheetPosition | undefined
  readonly marked: MarkedMeasures | undefined
  /** Notes that the shown version has otherwise. */
  readonly changes: number
  /** Writing by hand, where the sheet may be written on. */
  readonly writing: Writing | undefined
  /** A place on the standing neck is heard, and written where the pen stands. */
  readonly hear: (string: number, fret: number) => void
  readonly arranger: BenchArranger
  /** Shows what a choice would make of the tab before it is taken. */
  readonly look: Look
  /** The last change of the arrangement, that it can be compared with. */
  readonly previous: string | undefined
  /** Other versions of measures that the hand in use plays throughout. */
  readonly own: readonly Variant[]
  /** Tune and finished arrangement, where what is shown is just that. */
  readonly checked: { readonly tune: TuneDoc; readonly doc: ArrangementDoc } | undefined
  readonly report: ReturnType<typeof useAudit>['report']
  /** True where the arrangement as it stands is shown, and may be locked. */
  readonly lockable: boolean
}

export const BenchStoreContext = createContext<BenchStore | undefined>(undefined)
export const BenchPageContext = createContext<BenchPage | undefined>(undefined)

/** The store of the bench; it keeps its identity. */
export function useBenchStore(): BenchStore {
  const store = useContext(BenchStoreContext)
  if (!store) throw new Error('This stands on a bench alone.')
  return store
}

/** One thing of what is looked at on the bench. */
export const useBench = <T>(of: (state: BenchState) => T): T => useStore(useBenchStore(), of)

/** Sets one thing of what is looked at; it keeps its identity. */
export function useSetBench<K extends keyof BenchState>(key: K): (value: BenchState[K]) => void {
  const store = useBenchStore()
  return useMemo(() => (value) => store.setState({ [key]: value } as Pick<BenchState, K>), [store, key])
}

/** The page that what stands around the sheet speaks of. */
export function useBenchPage(): BenchPage {
  const page = useContext(BenchPageContext)
  if (!page) throw new Error('This stands on a bench alone.')
  return page
}
