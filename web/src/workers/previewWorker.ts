import type { ArrangementDoc, TasteInForce, TuneDoc } from '@velvet-porch/core/document'
import { arrangingBy, type ArrangeRun } from './arrangeRun.ts'
import type { ArrangeOrder, BenchApi } from './benchApi.ts'
import { Supervised } from './supervised.ts'

/** A worker for what is only looked at: what is taken does not wait behind it. Started when first needed. */
const preview = new Supervised<BenchApi>(
  () => new Worker(new URL('./bench.worker.ts', import.meta.url), { type: 'module' }),
)
let isReady = false

/** Has the worker begin before anything is looked at: whoever comes near the settings will look at one. */
export function prepareToLook(): void {
  if (isReady) return
  isReady = true
  void preview.call('read', 'X:1\nK:C\n').catch(() => undefined)
}

const arrange = arrangingBy(preview)

/** Arranges an order that may never be taken. */
export const previewInWorker = (order: ArrangeOrder): ArrangeRun => arrange(order, () => undefined)

/** What another taste would change in a tab; asked of this worker, so that the other keeps what it knows of the tab that stands. */
export const tasteChangeInWorker = (tune: TuneDoc, doc: ArrangementDoc, taste: TasteInForce | undefined) =>
  preview.call('tasteChange', tune, doc, taste)
