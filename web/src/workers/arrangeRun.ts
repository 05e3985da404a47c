import { proxy } from 'comlink'
import type { ArrangeOrder, ArrangeReply, BenchApi } from './benchApi.ts'
import type { Supervised } from './supervised.ts'

/** A run that can be stopped. */
export interface ArrangeRun {
  readonly reply: Promise<ArrangeReply>
  readonly cancel: () => void
}

/** Has a worker arrange orders, each in a run that can be stopped. */
export function arrangingBy(worker: Supervised<BenchApi>) {
  let jobs = 0
  return (order: ArrangeOrder, onProgress: (share: number) => void): ArrangeRun => {
    const job = ++jobs
    return {
      // A worker that is lost over it is an answer too: the bench says so and offers to try again.
      reply: worker.call('arrange', job, order, proxy(onProgress)).catch((error: unknown): ArrangeReply => ({
        kind: 'lost',
        error,
      })),
      cancel: () => void worker.call('cancel', job).catch(() => undefined),
    }
  }
}
