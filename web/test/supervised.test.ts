import { expose } from 'comlink'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { Supervised, type Sign } from '../src/workers/supervised.ts'
import { WorkerError } from '../src/workers/workerError.ts'

type Method = (...args: never[]) => unknown
type Api = {
  slow: (ms: number) => Promise<string>
  add: (a: number, b: number) => number
  hang: () => number
  fail: () => never
}

/** A worker in this thread. One that hangs hears nothing any more, as its real kind would. */
class FakeWorker extends EventTarget {
  static made: FakeWorker[] = []
  readonly #inner = new EventTarget()
  deaf = false
  ended = false
  constructor() {
    super()
    FakeWorker.made.push(this)
    const say = (data: unknown) => {
      if (!this.ended) setTimeout(() => this.dispatchEvent(new MessageEvent('message', { data })))
    }
    const api: Record<string, Method> = {
      add: (a: number, b: number) => a + b,
      slow: (ms: number) => new Promise((r) => setTimeout(() => r('done'), ms)),
      hang: () => {
        this.deaf = true
        return new Promise(() => undefined)
      },
      fail: () => {
        throw new Error('no')
      },
    }
    const endpoint = Object.assign(this.#inner, { postMessage: say })
    expose(
      {
        run: (job: number, method: string, ...args: never[]) => {
          say({ sign: 'began', job } satisfies Sign)
          return api[method]!(...args)
        },
        hear: () => say({ sign: 'hears' } satisfies Sign),
      },
      endpoint,
    )
  }
  postMessage(data: unknown): void {
    setTimeout(() => {
      if (!this.deaf && !this.ended) this.#inner.dispatchEvent(new MessageEvent('message', { data }))
    })
  }
  terminate(): void {
    this.ended = true
  }
}

const worker = () => new Supervised<Api>(() => new FakeWorker() as unknown as Worker)

beforeEach(() => {
  FakeWorker.made = []
  vi.useFakeTimers()
})
afterEach(() => vi.useRealTimers())

/** Lets time pass until a promise is settled. */
async function soon<T>(promise: Promise<T>): Promise<T> {
  let over = false
  const end = () => void (over = true)
  promise.then(end, end)
  for (let i = 0; i < 400 && !over; i++) await vi.advanceTimersByTimeAsync(100)
  return promise
}

describe('a watched worker', () => {
  it('answers, and passes on what a job throws', async () => {
    const own = worker()
    expect(await soon(own.call('add', 2, 3))).toBe(5)
    await expect(soon(own.call('fail'))).rejects.toThrow('no')
    expect(FakeWorker.made).toHaveLength(1)
  })

  it('is started only when it is needed', () => {
    worker()
    expect(FakeWorker.made).toHaveLength(0)
  })

  it('that is silent for ten seconds is ended: its job fails with a word, the others go on in a new one', async () => {
    const own = worker()
    const hanging = own.call('hang')
    const failed = expect(soon(hanging)).rejects.toMatchObject({ reason: 'silent' })
    const after = [own.call('add', 1, 1), own.call('add', 2, 2)]
    await failed
    expect(await soon(Promise.all(after))).toEqual([2, 4])
    expect(FakeWorker.made.map((w) => w.ended)).toEqual([true, false])
    expect(await soon(own.call('add', 3, 3))).toBe(6)
  })

  it('may take its time as long as it hears', async () => {
    const own = worker()
    expect(await soon(own.call('slow', 30_000))).toBe('done')
    expect(FakeWorker.made).toHaveLength(1)
  })

  it.each(['error', 'messageerror'])('that breaks (%s) fails its job and is started anew', async (kind) => {
    const own = worker()
    const lost = own.call('slow', 5000)
    const failed = expect(soon(lost)).rejects.toBeInstanceOf(WorkerError)
    await vi.advanceTimersByTimeAsync(50)
    FakeWorker.made[0]!.dispatchEvent(Object.assign(new Event(kind), { message: 'out of memory' }))
    await failed
    expect(await soon(own.call('add', 4, 4))).toBe(8)
    expect(FakeWorker.made).toHaveLength(2)
  })

  it('can be ended at once: what it was at is never answered, a later call starts a new one', async () => {
    const own = worker()
    let answered = false
    const left = () => void (answered = true)
    own.call('slow', 5000).then(left, left)
    await vi.advanceTimersByTimeAsync(50)
    own.end()
    expect(FakeWorker.made[0]!.ended).toBe(true)
    await vi.advanceTimersByTimeAsync(30_000)
    expect(answered).toBe(false)
    expect(FakeWorker.made).toHaveLength(1)
    expect(await soon(own.call('add', 1, 2))).toBe(3)
    expect(FakeWorker.made).toHaveLength(2)
  })

  it('gives a job to a new worker once, not for ever', async () => {
    const own = worker()
    const jobs = [own.call('hang'), own.call('hang'), own.call('hang')]
    const outcomes = await soon(Promise.allSettled(jobs))
    expect(outcomes.map((o) => o.status)).toEqual(['rejected', 'rejected', 'rejected'])
  })
})
