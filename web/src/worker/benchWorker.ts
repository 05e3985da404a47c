import { proxy, wrap, type Remote } from 'comlink'
import type { ArrangementDoc, MeasureRange, Player, TuneDoc } from '@velvet-porch/core'
import type { AlternativesTarget, ArrangeOrder, ArrangeReply, BenchApi } from './bench.worker.ts'

let remote: Remote<BenchApi> | undefined
let jobs = 0

/** The worker that reads and arranges, started when first needed. */
function bench(): Remote<BenchApi> {
  remote ??= wrap<BenchApi>(new Worker(new URL('./bench.worker.ts', import.meta.url), { type: 'module' }))
  return remote
}

export const readInWorker = (text: string) => bench().read(text)

export const checkInWorker = (doc: unknown) => bench().check(doc)

export const readTabInWorker = (text: string, player: Player, title: string) =>
  bench().readTab(text, player, title)

export const auditInWorker = (tune: TuneDoc, doc: ArrangementDoc) => bench().audit(tune, doc)

export const alternativesInWorker = (order: ArrangeOrder, target: AlternativesTarget) =>
  bench().alternatives(order, target)

export const harmoniseInWorker = (tune: TuneDoc) => bench().harmonise(tune)

export const leftOutInWorker = (tune: TuneDoc, doc: ArrangementDoc) => bench().leftOut(tune, doc)

export const remarksInWorker = (tune: TuneDoc, doc: ArrangementDoc) => bench().remarks(tune, doc)

export const ornamentsLeftInWorker = (tune: TuneDoc, doc: ArrangementDoc) => bench().ornamentsLeft(tune, doc)

export const ladderInWorker = (order: ArrangeOrder, range: MeasureRange) => bench().ladder(order, range)

/** A run that can be stopped. */
export interface ArrangeRun {
  readonly reply: Promise<ArrangeReply>
  readonly cancel: () => void
}

export function arrangeInWorker(order: ArrangeOrder, onProgress: (share: number) => void): ArrangeRun {
  const job = ++jobs
  const worker = bench()
  return {
    reply: worker.arrange(job, order, proxy(onProgress)),
    cancel: () => void worker.cancel(job),
  }
}
