import { proxy, wrap, type Remote } from 'comlink'
import type { ArrangementDoc, Region, Setup, TuneDoc } from '@velvet-porch/core'
import type { ArrangeReply, BenchApi } from './bench.worker.ts'

let remote: Remote<BenchApi> | undefined
let jobs = 0

/** The worker that reads and arranges, started when first needed. */
function bench(): Remote<BenchApi> {
  remote ??= wrap<BenchApi>(new Worker(new URL('./bench.worker.ts', import.meta.url), { type: 'module' }))
  return remote
}

export const readInWorker = (text: string) => bench().read(text)

export const auditInWorker = (tune: TuneDoc, doc: ArrangementDoc) => bench().audit(tune, doc)

/** A run that can be stopped. */
export interface ArrangeRun {
  readonly reply: Promise<ArrangeReply>
  readonly cancel: () => void
}

export function arrangeInWorker(
  tune: TuneDoc,
  setup: Setup,
  regions: readonly Region[],
  onProgress: (share: number) => void,
): ArrangeRun {
  const job = ++jobs
  const worker = bench()
  return {
    reply: worker.arrange(job, tune, setup, regions, proxy(onProgress)),
    cancel: () => void worker.cancel(job),
  }
}
