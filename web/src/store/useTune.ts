import { useLiveQuery } from 'dexie-react-hooks'
import { useEffect, useReducer } from 'react'
import type { ArrangementDoc, TuneDoc } from '@velvet-porch/core'
import { labelsOf } from './documents.ts'
import { checkInWorker } from '../worker/benchWorker.ts'
import { useOpenScore } from './openScore.ts'

export type Opened<T> =
  | { readonly state: 'loading' }
  | { readonly state: 'missing' }
  | { readonly state: 'broken'; readonly raw: unknown; readonly reason: string }
  | { readonly state: 'ready'; readonly doc: T }

/** Tunes that were checked since the page was opened, with what is wrong with them, if anything. */
const checked = new Map<string, string | undefined>()

/**
 * The tune as it stands on the page, followed live. What storage holds is checked against the schema once, in the worker:
 * on a long tune that takes its time.
 */
export function useTune(id: string): Opened<TuneDoc> {
  const score = useOpenScore(id)
  const [, again] = useReducer((n: number) => n + 1, 0)
  const doc = score?.tune
  const needsCheck = doc !== undefined && !checked.has(id)
  useEffect(() => {
    if (!needsCheck) return
    let left = false
    void checkInWorker(doc).then((reason) => {
      checked.set(id, reason)
      if (!left) again()
    })
    return () => {
      left = true
    }
  }, [needsCheck, doc, id])
  if (!score) return { state: 'loading' }
  if (!doc) return { state: 'missing' }
  if (needsCheck) return { state: 'loading' }
  const reason = checked.get(id)
  if (reason !== undefined) return { state: 'broken', raw: doc, reason }
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
