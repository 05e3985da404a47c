import { knownIn } from '@velvet-porch/core/invariant'
import { useEffect, useReducer } from 'react'
import type { ArrangementDoc, TuneDoc } from '@velvet-porch/core/document'
import { labelsOf } from './documents.ts'
import type { CheckReply, DocumentRefusal } from '../workers/benchApi.ts'
import { checkInWorker } from '../workers/benchWorker.ts'
import { useOpenScore } from './openScore.ts'
import { useStored } from './useStored.ts'
import { errorWords } from '../workers/errorWords.ts'
import i18next from 'i18next'

export type Opened<T> =
  | { readonly state: 'loading' }
  | { readonly state: 'missing' }
  /** The tune itself cannot be used, or the tab on its bench. */
  | {
      readonly state: 'broken'
      readonly what: 'tune' | 'tab'
      readonly raw: unknown
      readonly refusal: DocumentRefusal
    }
  | { readonly state: 'ready'; readonly doc: T }

/** Tunes that were checked since the page was opened, with what is wrong with them or their arrangement, if anything. */
const checked = new Map<string, CheckReply>()

/** Forgets what was found of a tune: it was mended, or came back from a file. */
export const checkAgain = (id: string): void => void checked.delete(id)

/**
 * The tune as it stands on the page, followed live. What storage holds is checked against the schema once, in the worker:
 * on a long tune that takes its time.
 */
export function useTune(id: string): Opened<TuneDoc> {
  const score = useOpenScore(id)
  const [, again] = useReducer((n: number) => n + 1, 0)
  const doc = score?.tune
  const arrangement = score?.arrangement
  const needsCheck = doc !== undefined && !checked.has(id)
  useEffect(() => {
    if (!needsCheck) return
    let left = false
    void checkInWorker(doc, arrangement)
      // Where the check itself is lost over it, it cannot be used either.
      .catch((error: unknown): CheckReply => ({
        tune: { reason: errorWords(i18next.t, error), newer: false },
      }))
      .then((reply) => {
        checked.set(id, reply)
        if (!left) again()
      })
    return () => {
      left = true
    }
  }, [needsCheck, doc, arrangement, id])
  if (!score) return { state: 'loading' }
  if (!doc) return { state: 'missing' }
  if (needsCheck) return { state: 'loading' }
  const { tune: wrong, arrangement: wrongTab } = knownIn(checked, id)
  if (wrong) return { state: 'broken', what: 'tune', raw: doc, refusal: wrong }
  if (wrongTab) return { state: 'broken', what: 'tab', raw: arrangement, refusal: wrongTab }
  return { state: 'ready', doc }
}

/** The tune's arrangement: undefined while loading, null where there is none yet. */
export function useArrangement(tuneId: string): ArrangementDoc | null | undefined {
  const score = useOpenScore(tuneId)
  return score && (score.arrangement ?? null)
}

/** What undo and redo would do to a tune and its arrangement. */
export function useHistory(tuneId: string): { undo?: string; redo?: string } {
  return useStored(() => labelsOf(tuneId), [tuneId]) ?? {}
}
