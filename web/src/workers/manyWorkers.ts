import { proxy } from 'comlink'
import type { ArrangeOrder, ArrangeReply, BenchApi } from './benchApi.ts'
import { Supervised } from './supervised.ts'

/** Workers at once at most. */
const MOST_WORKERS = 8

/** Several workers that arrange at once, for as long as there is much to do. */
export class ManyWorkers {
  readonly size = Math.max(1, Math.min(MOST_WORKERS, navigator.hardwareConcurrency))
  readonly #workers = Array.from({ length: this.size }, () => ({
    worker: new Supervised<BenchApi>(
      () => new Worker(new URL('./bench.worker.ts', import.meta.url), { type: 'module' }),
    ),
    jobs: 0,
  }))
  #ids = 0

  /** Has the worker with the least to do arrange a tune; stopped soon after the signal is given. */
  async arrange(order: ArrangeOrder, signal: AbortSignal): Promise<ArrangeReply> {
    const own = this.#workers.reduce((least, w) => (w.jobs < least.jobs ? w : least))
    const job = ++this.#ids
    const stop = () => void own.worker.call('cancel', job).catch(() => undefined)
    signal.addEventListener('abort', stop, { once: true })
    own.jobs++
    try {
      return await own.worker.call(
        'arrange',
        job,
        order,
        proxy(() => undefined),
      )
    } catch (error) {
      return { kind: 'lost', error }
    } finally {
      own.jobs--
      signal.removeEventListener('abort', stop)
    }
  }

  /** Ends the workers. */
  end(): void {
    for (const { worker } of this.#workers) worker.end()
  }
}
