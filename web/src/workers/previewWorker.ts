import { proxy } from 'comlink'
import type { ArrangeOrder, ArrangeReply, BenchApi } from './benchApi.ts'
import type { ArrangeRun } from './benchWorker.ts'
import { Supervised } from './supervised.ts'

/** A worker for what is only looked at: what is taken does not wait behind it. Started when first needed. */
const preview = new Supervised<BenchApi>(
  () => new Worker(new URL('./bench.worker.ts', import.meta.url), { type: 'module' }),
)
let jobs = 0
let isReady = false

/** Has the worker begin before anything is looked at: whoever comes near the settings will look at one. */
export function prepareToLook(): void {
  if (isReady) return
  isReady = true
  void preview.call('read', 'X:1\nK:C\n').catch(() => undefined)
}

/** Arranges an order that may never be taken. */
export function previewInWorker(order: ArrangeOrder): ArrangeRun {
  const job = ++jobs
  return {
    reply: preview
      .call(
        'arrange',
        job,
        order,
        proxy(() => undefined),
      )
      .catch((error: unknown): ArrangeReply => ({ kind: 'lost', error })),
    cancel: () => void preview.call('cancel', job).catch(() => undefined),
  }
}
