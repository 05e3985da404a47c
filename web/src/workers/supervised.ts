import { wrap, type Remote } from 'comlink'
import { WorkerError } from './workerError.ts'

/** What a worker can be asked, by name. */
export type WorkerApi = Readonly<Record<string, (...args: never[]) => unknown>>

/** Milliseconds of silence after which a worker at work is taken for lost. */
const PATIENCE_MS = 10_000
/** Milliseconds between two questions whether it still hears. */
const ASK_EVERY_MS = 1000
/** A job that ended a worker is not given to another one. */
const MOST_TRIES = 2

interface Job {
  readonly id: number
  readonly method: string
  readonly args: readonly unknown[]
  readonly settle: (outcome: Promise<unknown>) => void
  readonly fail: (error: WorkerError) => void
  begun: boolean
  tries: number
}

/** The two things that a supervised worker says of itself: it began a job, and it hears. */
export type Sign = { readonly sign: 'began'; readonly job: number } | { readonly sign: 'hears' }

interface SupervisedApi {
  run(job: number, method: string, ...args: readonly unknown[]): Promise<unknown>
  hear(): void
}

/**
 * A worker that is watched. One that is silent for ten seconds while it has work, or that breaks, is ended; the job that it
 * was at fails with a `WorkerError`, and all others go on in a new worker. Started when first needed.
 * @param start makes the worker; its script calls `serve`
 */
export class Supervised<Api extends WorkerApi> {
  #worker: { readonly worker: Worker; readonly remote: Remote<SupervisedApi> } | undefined
  readonly #jobs = new Map<number, Job>()
  #ids = 0
  #heard = 0
  #watch: ReturnType<typeof setInterval> | undefined
  readonly #start: () => Worker

  constructor(start: () => Worker) {
    this.#start = start
  }

  /** Has the worker do something. @throws WorkerError where it was silent or broke over it */
  call<M extends keyof Api & string>(
    method: M,
    ...args: Parameters<Api[M]>
  ): Promise<Awaited<ReturnType<Api[M]>>> {
    return new Promise<unknown>((resolve, reject) => {
      const id = ++this.#ids
      const end = () => {
        this.#jobs.delete(id)
        if (this.#jobs.size === 0) this.#rest()
      }
      const job: Job = {
        id,
        method,
        args,
        settle: (outcome) =>
          void outcome.then(
            (value) => {
              if (!this.#jobs.has(id)) return
              end()
              resolve(value)
            },
            (error: unknown) => {
              if (!this.#jobs.has(id)) return
              end()
              reject(error instanceof Error ? error : new WorkerError('broken', String(error)))
            },
          ),
        fail: (error) => {
          end()
          reject(error)
        },
        begun: false,
        tries: 0,
      }
      this.#jobs.set(id, job)
      this.#give(job)
    }) as Promise<Awaited<ReturnType<Api[M]>>>
  }

  /** Ends the worker at once, whatever it is at. What it was asked is never answered; a later call starts a new one. */
  end(): void {
    this.#worker?.worker.terminate()
    this.#worker = undefined
    this.#jobs.clear()
    this.#rest()
  }

  #give(job: Job): void {
    const { remote } = this.#running()
    if (this.#watch === undefined) {
      this.#heard = performance.now()
      this.#watch = setInterval(() => this.#look(), ASK_EVERY_MS)
    }
    job.begun = false
    job.tries++
    job.settle(remote.run(job.id, job.method, ...job.args))
  }

  #running() {
    if (this.#worker) return this.#worker
    const worker = this.#start()
    worker.addEventListener('message', ({ data }: MessageEvent<Partial<Sign> | undefined>) => {
      this.#heard = performance.now()
      if (data?.sign === 'began') {
        const job = this.#jobs.get((data as { job: number }).job)
        if (job) job.begun = true
      }
    })
    const broke = (detail: string) => {
      if (this.#worker?.worker === worker) this.#restart('broken', detail)
    }
    worker.addEventListener('error', (event) => broke(event.message))
    worker.addEventListener('messageerror', () => broke('a message could not be read'))
    this.#worker = { worker, remote: wrap<SupervisedApi>(worker) }
    return this.#worker
  }

  #rest(): void {
    clearInterval(this.#watch)
    this.#watch = undefined
  }

  #look(): void {
    if (performance.now() - this.#heard > PATIENCE_MS) this.#restart('silent')
    else void this.#worker?.remote.hear()
  }

  /** Ends the worker. What it was at, as far as it said, is the job that was begun last. */
  #restart(reason: WorkerError['reason'], detail?: string): void {
    this.#worker?.worker.terminate()
    this.#worker = undefined
    this.#rest()
    const jobs = [...this.#jobs.values()]
    const atWork = jobs.findLast((j) => j.begun) ?? jobs[0]
    for (const job of jobs) {
      if (job === atWork || job.tries >= MOST_TRIES) job.fail(new WorkerError(reason, detail))
      else this.#give(job)
    }
  }
}
