import type { RecordingReading } from '@velvet-porch/core/listen'
import { proxy, transfer, wrap, type Remote } from 'comlink'
import type { FitApi } from './fit.worker.ts'
import { WorkerError } from './supervised.ts'

/** A worker of its own that can be ended at any moment, whatever it is at. */
export interface FitWorker {
  readonly remote: Remote<FitApi>
  readonly end: () => void
  /** Fails where the worker breaks; never ends otherwise. */
  readonly lost: Promise<never>
}

let spare: FitWorker[] = []

/** Starts workers ahead, so that the first answer does not wait for their code. */
export function prepareFitWorkers(count: number): void {
  while (spare.length < count) spare.push(newWorker())
}

/** A worker at rest: one that was prepared, else a new one. */
export const startFitWorker = (): FitWorker => spare.pop() ?? newWorker()

/** Ends the workers that were prepared and not needed. */
export function dropSpareWorkers(): void {
  for (const { end } of spare) end()
  spare = []
}

function newWorker(): FitWorker {
  const worker = new Worker(new URL('./fit.worker.ts', import.meta.url), { type: 'module' })
  const lost = new Promise<never>((_, reject) => {
    const broke = (detail: string) => reject(new WorkerError('broken', detail))
    worker.addEventListener('error', (event) => broke(event.message))
    worker.addEventListener('messageerror', () => broke('a message could not be read'))
  })
  // Whoever works with it hears of it; a spare one that breaks is found out when it is taken.
  lost.catch(() => undefined)
  return { remote: wrap<FitApi>(worker), end: () => worker.terminate(), lost }
}

/** Looks at a recording in a worker. */
export function listenInWorker(
  samples: Float32Array,
  rate: number,
  onProgress: (share: number) => void,
): { readonly reading: Promise<RecordingReading>; readonly cancel: () => void } {
  const { remote, end, lost } = startFitWorker()
  const listening = remote.listen(transfer(samples, [samples.buffer]), rate, proxy(onProgress))
  const reading = Promise.race([listening, lost])
  void reading.then(end, end)
  return { reading, cancel: end }
}
