import { Worker } from 'node:worker_threads'
import { caseInput } from './target.ts'
import { TARGETS } from './targets/index.ts'

/** Milliseconds after which a case is taken for hanging; a test on a busy machine waits longer. */
const PATIENCE_MS = 2000
/** Megabytes that a worker may use. */
const MOST_MB = 512

export interface FuzzTask {
  readonly name: string
  readonly seed: number
  readonly from: number
  readonly count: number
  /** Number of the case at work, when it began, and the longest that one took (ms). */
  readonly clock: SharedArrayBuffer
}

/** What a worker tells: something that is wrong with a case, or that all are done. */
export type FuzzReport = 'done' | FuzzFault

export interface FuzzFault {
  readonly case: number
  readonly kind: 'throw' | 'hang' | 'memory' | 'refusal' | 'loss'
  readonly what: string
  readonly input: unknown
}

export interface FuzzResult {
  readonly name: string
  readonly cases: number
  readonly faults: readonly FuzzFault[]
  /** The longest that a case took. */
  readonly slowestMs: number
}

/**
 * Gives a reader so many inputs, the good ones first and then mutations of them, in a thread of its own. A case that takes
 * too long or too much memory ends its thread, counts as a fault, and the next case goes on.
 */
export async function fuzz(
  name: string,
  count: number,
  seed = 1,
  patienceMs = PATIENCE_MS,
): Promise<FuzzResult> {
  const faults: FuzzFault[] = []
  const clock = new SharedArrayBuffer(3 * Float64Array.BYTES_PER_ELEMENT)
  const at = new Float64Array(clock)
  for (let from = 0; from < count;) {
    const ended = await stretch({ name, seed, from, count, clock }, faults, patienceMs)
    if (ended === 'done') break
    const target = TARGETS.find((t) => t.name === name)!
    faults.push({ case: at[0]!, kind: ended, what: ended, input: caseInput(target, seed, at[0]!) })
    from = at[0]! + 1
  }
  return { name, cases: count, faults, slowestMs: at[2]! }
}

function stretch(
  task: FuzzTask,
  faults: FuzzFault[],
  patienceMs: number,
): Promise<'done' | 'hang' | 'memory'> {
  const at = new Float64Array(task.clock)
  at[1] = 0
  const worker = new Worker(new URL('./worker.mjs', import.meta.url), {
    workerData: task,
    resourceLimits: { maxOldGenerationSizeMb: MOST_MB },
  })
  return new Promise((resolve, reject) => {
    const end = (how: 'done' | 'hang' | 'memory') => {
      clearInterval(watch)
      void worker.terminate().then(() => resolve(how))
    }
    const watch = setInterval(() => {
      if (at[1]! > 0 && Date.now() - at[1]! > patienceMs) end('hang')
    }, 100)
    worker.on('message', (report: FuzzReport) => (report === 'done' ? end('done') : faults.push(report)))
    worker.on('error', (error: Error & { code?: string }) => {
      if (error.code === 'ERR_WORKER_OUT_OF_MEMORY') return end('memory')
      clearInterval(watch)
      reject(error)
    })
  })
}
