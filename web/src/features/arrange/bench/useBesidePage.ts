import type { ArrangementDoc, Id, TuneDoc } from '@velvet-porch/core/document'
import { useMemo } from 'react'
import { useStore } from 'zustand'
import { sheetModel } from '../../../score/sheet/sheetModel.ts'
import { usePrefs } from '../../../state/prefs.ts'
import { useVersions, versionOn } from '../../../state/versions.ts'
import { changedNotes } from '../shownNotes.ts'
import type { BenchStore } from './benchStore.ts'

const NOTHING: ReadonlySet<Id> = new Set()

/** The kept version that is shown beside the bench's, with what differs on either side. */
export function useBesidePage(
  store: BenchStore,
  id: Id,
  tune: TuneDoc | undefined,
  doc: ArrangementDoc | null | undefined,
) {
  const besideId = useStore(store, (s) => s.beside)
  const versions = useVersions(id)
  const version = versions.find((v) => v.id === besideId)
  const plain = usePrefs().sheet.durations === 'plain'
  return useMemo(() => {
    if (!version || !tune || !doc) return undefined
    const kept = versionOn(tune, version)
    return {
      version,
      model: sheetModel(tune, kept, plain),
      lit: { changed: changedNotes(doc, kept), locked: NOTHING },
      changed: changedNotes(kept, doc),
    }
  }, [version, tune, doc, plain])
}

export type BesidePage = NonNullable<ReturnType<typeof useBesidePage>>
