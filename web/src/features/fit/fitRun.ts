import { knownIn, present } from '@velvet-porch/core/invariant'
import { inputHash } from '@velvet-porch/core/document'
import {
  familiesOf,
  finalists,
  comparableEstimates,
  forKeyAndSinger,
  type FitOption,
  type FitQuestion,
  type Preferences,
  type WorkedOut,
} from '@velvet-porch/core/arrange'
import { proxy } from 'comlink'
import { startFitWorker, type FitWorker } from '../../workers/fitWorkers.ts'
import { WorkerError } from '../../workers/workerError.ts'

/** What is known of the answers to a question. */
export interface FitState {
  readonly phase: 'idle' | 'estimating' | 'working' | 'done' | 'stopped'
  /** Share of the work that is done. */
  readonly share: number
  readonly estimates: ReadonlyMap<string, FitOption>
  readonly worked: ReadonlyMap<string, WorkedOut>
  /** Choices with which the tune cannot be played after all. */
  readonly impossible: ReadonlySet<string>
  /** Choices over which a worker was lost: nothing is known of them. */
  readonly failed: number
  readonly seconds?: number
}

export const WORKERS = 2
/** Milliseconds between two reports of what is found. */
const TELL_MS = 400
/** Share of the estimates in the whole work. */
const ESTIMATES = 0.4
const NOTHING: FitState = {
  phase: 'idle',
  share: 0,
  estimates: new Map(),
  worked: new Map(),
  impossible: new Set(),
  failed: 0,
}

/** Answers one question in two workers: estimates first, then the best in full; may be stopped and asked for more. */
export class FitRun {
  /** What is reported, and what is known by now. */
  private state = NOTHING
  private next = NOTHING
  private timer: ReturnType<typeof setTimeout> | undefined
  private readonly listeners = new Set<() => void>()
  private workers: FitWorker[] = []

  constructor(private readonly question: FitQuestion) {}

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }
  readonly snapshot = (): FitState => this.state

  /** Estimates everything, then works out the finalists by these preferences and this wanted key and singer. */
  async start(question: FitQuestion, preferences: Preferences): Promise<void> {
    this.cancel()
    const started = performance.now()
    this.set({ ...NOTHING, phase: 'estimating' })
    const workers = this.begin(WORKERS)
    try {
      await this.estimate(workers)
      if (this.workers !== workers) return
      this.set({ phase: 'working', share: ESTIMATES })
      const queue = finalists(optionsFor(this.next, question), preferences)
      const all = queue.length
      let done = 0
      await Promise.all(
        workers.map(async (worker) => {
          for (let next = queue.shift(); next; next = queue.shift()) {
            await this.solve(worker, next)
            if (this.workers !== workers) return
            this.set({ share: ESTIMATES + ((1 - ESTIMATES) * ++done) / all })
          }
        }),
      )
      if (this.workers === workers)
        this.set({ phase: 'done', share: 1, seconds: (performance.now() - started) / 1000 })
    } catch (error) {
      // What is known by now stays; what failed is shown on the page.
      if (this.workers === workers) this.set({ phase: 'stopped' })
      throw error
    } finally {
      if (this.workers === workers) this.endAll()
    }
  }

  /** Works out one choice that was only estimated so far. */
  async workOut(id: string): Promise<void> {
    const option = this.next.estimates.get(id)
    if (!option || this.next.worked.has(id) || this.workers.length > 0) return
    const [worker] = this.begin(1)
    try {
      await this.solve(present(worker), option)
    } finally {
      this.endAll()
    }
  }

  /** Ends all work at once; what is known stays. */
  cancel(): void {
    if (this.workers.length === 0) return
    this.endAll()
    this.set({ phase: 'stopped' })
  }

  private begin(count: number): FitWorker[] {
    this.workers = Array.from({ length: count }, startFitWorker)
    return this.workers
  }

  private endAll(): void {
    for (const worker of this.workers) worker.end()
    this.workers = []
  }

  private async estimate(workers: readonly FitWorker[]): Promise<void> {
    const families = familiesOf(this.question)
    const tunings = [...new Set(families.map((f) => f.tuning))]
    // A tuning stays with one worker, which knows its grips.
    const of = (i: number) => (tunings.length > 1 ? tunings.indexOf(families[i]!.tuning) : i) % workers.length
    let done = 0
    const take = (options: readonly FitOption[]) => {
      if (this.workers !== workers) return
      const estimates = new Map(this.next.estimates)
      for (const o of options) estimates.set(o.id, o)
      this.set({ estimates, share: (ESTIMATES * ++done) / families.length })
    }
    await Promise.all(
      workers.map(async (worker, w) => {
        let rest = families.filter((_, i) => of(i) === w)
        while (rest.length > 0) {
          let lastTold = 0
          const counted = proxy((options: readonly FitOption[]) => {
            lastTold++
            take(options)
          })
          try {
            return await worker.call('estimate', this.question, rest, counted)
          } catch (error) {
            this.lose(error, rest[lastTold]?.choices.length ?? 0)
            // The others are looked at without the one over which it was lost.
            rest = rest.slice(lastTold + 1)
          }
        }
      }),
    )
  }

  private async solve(worker: FitWorker, { choice, id }: FitOption): Promise<void> {
    try {
      const found = await worker.call('workOut', this.question, choice)
      if (found) return this.set({ worked: new Map([...this.next.worked, [id, found]]) })
      this.set({ impossible: new Set([...this.next.impossible, id]) })
    } catch (error) {
      this.lose(error, 1)
    }
  }

  /** Counts choices over which a worker was lost; any other error is thrown on. */
  private lose(error: unknown, choices: number): void {
    if (!(error instanceof WorkerError)) throw error
    this.set({ failed: this.next.failed + choices })
  }

  /** A new phase is reported at once, what is found on the way a few times a second: the page must not slow the work. */
  private set(next: Partial<FitState>): void {
    const turned = next.phase !== undefined && next.phase !== this.state.phase
    this.next = { ...this.next, ...next }
    if (turned || this.state.estimates.size === 0) return this.tell()
    this.timer ??= setTimeout(() => this.tell(), TELL_MS)
  }

  private tell(): void {
    clearTimeout(this.timer)
    this.timer = undefined
    this.state = this.next
    this.listeners.forEach((l) => l())
  }
}

/** Questions whose answers are kept. */
const MOST_KEPT = 8
const kept = new Map<string, FitRun>()

/** The run of a question: the same where only the wanted key or the singer differs. */
export function fitRunFor(question: FitQuestion): FitRun {
  const { tune, setup, regions, tunings, shifts, capos } = question
  const key = JSON.stringify([tune.id, inputHash(tune, setup, regions), tunings, shifts, capos])
  let run = kept.get(key)
  if (!run) {
    run = new FitRun(question)
    kept.set(key, run)
    const oldest = kept.keys().next().value
    if (kept.size > MOST_KEPT && oldest !== undefined) {
      knownIn(kept, oldest).cancel()
      kept.delete(oldest)
    }
  }
  return run
}

/** The options of a state as the question asks for them: what is worked out, and estimates compared with it. */
export function optionsFor(
  { estimates, worked, impossible }: Pick<FitState, 'estimates' | 'worked' | 'impossible'>,
  question: FitQuestion,
): FitOption[] {
  const full = [...worked.values()].map((w) => w.option)
  const guessed = comparableEstimates([...estimates.values()], full).filter((e) => !impossible.has(e.id))
  return forKeyAndSinger([...full, ...guessed], question)
}
