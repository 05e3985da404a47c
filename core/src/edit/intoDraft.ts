import type { Draft } from 'immer'
import type { ArrangementDoc } from '../model/arrangement.ts'
import { mergeList } from '../model/mergeList.ts'
import type { TuneDoc } from '../model/tune.ts'

const TUNE_LISTS = ['measures', 'events', 'chords', 'tuplets', 'sections', 'tempos'] as const
const LAYER_LISTS = ['notes', 'spans', 'grips', 'locks'] as const

/** Makes a tune's draft equal to a later state of it, touching only what differs, so that a command stays small. */
export function tuneIntoDraft(draft: Draft<TuneDoc>, next: TuneDoc): void {
  for (const list of TUNE_LISTS) mergeList<unknown>(draft[list], next[list])
  if (next.abc && next.abc.text !== draft.abc?.text) draft.abc = { text: next.abc.text, spans: [] }
}

/** The same for an arrangement. */
export function arrangementIntoDraft(draft: Draft<ArrangementDoc>, next: ArrangementDoc): void {
  for (const list of LAYER_LISTS) mergeList<unknown>(draft.base[list], next.base[list])
  mergeList<unknown>(draft.regions, next.regions)
  mergeList<unknown>(draft.variants, next.variants)
  if (draft.inputHash !== next.inputHash) draft.inputHash = next.inputHash
}
