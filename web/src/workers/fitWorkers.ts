import type { RecordingReading } from '@velvet-porch/core/input/audio'
import { proxy, transfer } from 'comlink'
import type { FitApi } from './fit.worker.ts'
import { Supervised } from './supervised.ts'

/** A worker of its own that can be ended at any moment, whatever it is at; watched like the others. */
export type FitWorker = Pick<Supervised<FitApi>, 'call' | 'end'>

let spare: FitWorker[] = []

/** Starts workers ahead, so that the first answer does not wait for their code. */
export function prepareFitWorkers(count: number): void {
  while (spare.length < count) {
    const worker = newWorker()
    // One that breaks is found out when it is used.
    worker.call('prepare').catch(() => undefined)
    spare.push(worker)
  }
}

/** A worker at rest: one that was prepared, else a new one. */
export const startFitWorker = (): FitWorker => spare.pop() ?? newWorker()

/** Ends the workers that were prepared and not needed. */
export function dropSpareWorkers(): void {
  for (const worker of spare) worker.end()
  spare = []
}

const newWorker = () =>
  new Supervised<FitApi>(() => new Worker(new URL('./fit.worker.ts', import.meta.url), { type: 'module' }))

/** Looks at a recording in a worker; the reading never comes where it is cancelled. */
export function listenInWorker(
  samples: Float32Array,
  rate: number,
  onProgress: (share: number) => void,
): { readonly reading: Promise<RecordingReading>; readonly cancel: () => void } {
  const worker = startFitWorker()
  const reading = worker.call('listen', transfer(samples, [samples.buffer]), rate, proxy(onProgress))
  const end = () => worker.end()
  void reading.then(end, end)
  return { reading, cancel: end }
}
