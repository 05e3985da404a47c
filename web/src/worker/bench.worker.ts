import {
  arranging,
  ArrangeError,
  audit,
  finishedTabOf,
  makePlan,
  tabJson,
  type ArrangementDoc,
  type AuditReport,
  type Layer,
  type Region,
  type Setup,
  type TuneDoc,
} from '@velvet-porch/core'
import { readAbc, type TuneReading } from '@velvet-porch/core/abc'
import { expose } from 'comlink'

/** The most milliseconds of work before messages (a cancel) are heard. */
const SLICE_MS = 12

export type ArrangeReply =
  | { readonly kind: 'done'; readonly layer: Layer; readonly transposed: number; readonly ms: number }
  | { readonly kind: 'cancelled' }
  | { readonly kind: 'failed'; readonly message: string; readonly measure?: number }

let cancelled = new Set<number>()

const breathe = () => new Promise<void>((resolve) => setTimeout(resolve))

const api = {
  /** Reads ABC; every tune gets a fresh id. */
  read(text: string): TuneReading[] {
    return readAbc(text, () => crypto.randomUUID())
  },

  /** Arranges a tune, telling its progress (0 to 1) and stopping soon after `cancel(job)`. */
  async arrange(
    job: number,
    tune: TuneDoc,
    setup: Setup,
    regions: readonly Region[],
    onProgress: (share: number) => void,
  ): Promise<ArrangeReply> {
    const started = performance.now()
    try {
      const run = arranging(tune, setup, regions)
      let slice = performance.now()
      for (let item = run.next(); ; item = run.next()) {
        if (item.done) {
          const { layer, plan } = item.value
          return { kind: 'done', layer, transposed: plan.transposed, ms: performance.now() - started }
        }
        if (performance.now() - slice > SLICE_MS) {
          onProgress(item.value)
          await breathe()
          slice = performance.now()
        }
        if (cancelled.has(job)) return { kind: 'cancelled' }
      }
    } catch (error) {
      if (error instanceof ArrangeError)
        return {
          kind: 'failed',
          message: error.message,
          ...(error.measure === undefined ? {} : { measure: error.measure }),
        }
      throw error
    } finally {
      cancelled = new Set([...cancelled].filter((c) => c > job))
    }
  },

  /** Judges a finished arrangement from its notes alone. */
  audit(tune: TuneDoc, doc: ArrangementDoc): AuditReport | undefined {
    const planned = makePlan(tune, doc.setup, doc.regions)
    return planned.ok
      ? audit(finishedTabOf(tabJson(tune, doc.setup, planned.plan, doc.base, [], 0)))
      : undefined
  },

  cancel(job: number): void {
    cancelled.add(job)
  },
}

export type BenchApi = typeof api
expose(api)
