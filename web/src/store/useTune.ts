import { useLiveQuery } from 'dexie-react-hooks'
import { useEffect, useState } from 'react'
import type { ArrangementDoc, TuneDoc } from '@velvet-porch/core'
import { labelsOf } from './documents.ts'
import { useOpenScore } from './openScore.ts'

export type Opened<T> =
  | { readonly state: 'loading' }
  | { readonly state: 'missing' }
  | { readonly state: 'broken'; readonly raw: unknown; readonly reason: string }
  | { readonly state: 'ready'; readonly doc: T }

/** The tune as it stands on the page, followed live. What storage holds is checked against the schema when a tune is opened. */
export function useTune(id: string): Opened<TuneDoc> {
  const score = useOpenScore(id)
  const [checked, setChecked] = useState<{ id: string; reason?: string }>()
  const doc = score?.tune
  const needsCheck = doc !== undefined && checked?.id !== id
  useEffect(() => {
    if (!needsCheck) return
    let left = false
    void import('@velvet-porch/core/schema').then(({ readTuneDoc }) => {
      if (left) return
      try {
        readTuneDoc(doc)
        setChecked({ id })
      } catch (error) {
        setChecked({ id, reason: (error as Error).message })
      }
    })
    return () => {
      left = true
    }
  }, [needsCheck, doc, id])
  if (!score) return { state: 'loading' }
  if (!doc) return { state: 'missing' }
  if (needsCheck) return { state: 'loading' }
  if (checked?.reason) return { state: 'broken', raw: doc, reason: checked.reason }
  return { state: 'ready', doc }
}

/** The tune's arrangement: undefined while loading, null where there is none yet. */
export function useArrangement(tuneId: string): ArrangementDoc | null | undefined {
  const score = useOpenScore(tuneId)
  return score && (score.arrangement ?? null)
}

/** What undo and redo would do to a tune and its arrangement. */
export function useHistory(tuneId: string): { undo?: string; redo?: string } {
  return useLiveQuery(() => labelsOf(tuneId), [tuneId]) ?? {}
}
