import { setupOf, tuningById } from '@velvet-porch/core/instrument'
import type { TuneDoc } from '@velvet-porch/core/document'
import {
  ALL_SHIFTS,
  estimateFamily,
  familiesOf,
  USUAL_PREFERENCES,
  wholeTune,
  workOut,
  type FitChoice,
  type FitFamily,
  type FitOption,
  type FitQuestion,
} from '@velvet-porch/core/arrange'
import { finish } from '@velvet-porch/core/turns'
import { readAbc } from '@velvet-porch/core/input/abc'
import { beforeEach, describe, expect, it, vi } from 'vitest'

/** Workers of the test: the same core, in this thread, that give way between two steps and can be ended or lost. */
const ended = { count: 0 }
/** Choices over which a worker is lost, by their capo. */
const losing = { capo: -1 }
vi.mock('../src/workers/fitWorkers.ts', async () => {
  const { WorkerError } = await import('../src/workers/workerError.ts')
  return {
    startFitWorker: () => {
      let over = false
      const turn = () => new Promise<void>((resolve) => setTimeout(resolve))
      const alive = async <T>(value: T): Promise<T> => {
        await turn()
        return over ? new Promise<T>(() => undefined) : value
      }
      const api = {
        estimate: async (
          asked: FitQuestion,
          families: readonly FitFamily[],
          onOptions: (options: readonly FitOption[]) => void,
        ) => {
          for (const family of families) {
            if (family.choices.some((c) => c.capo === losing.capo)) throw new WorkerError('silent')
            onOptions(await alive(finish(estimateFamily(asked, family))))
          }
        },
        workOut: (asked: FitQuestion, choice: FitChoice) => alive(finish(workOut(asked, choice))),
      }
      return {
        call: (method: keyof typeof api, ...args: never[]) =>
          (api[method] as (...args: never[]) => Promise<unknown>)(...args),
        end: () => {
          over = true
          ended.count++
        },
      }
    },
  }
})
vi.mock('comlink', () => ({ proxy: <T>(x: T) => x }))

const { FitRun, fitRunFor, optionsFor } = await import('../src/features/fit/fitRun.ts')

const tune: TuneDoc = readAbc(
  'X:1\nT:Latch\nM:4/4\nL:1/4\nK:G\n"G"GBd2|"C"cec2|"D"dfa2|"G"g4|]\n',
  () => 'tune',
)[0]!.tune!

const question = (over: Partial<FitQuestion> = {}): FitQuestion => ({
  tune,
  regions: wholeTune(tune, 'melody-bass', 2),
  setup: setupOf('guitar'),
  tunings: [tuningById('guitar', 'standard'), tuningById('guitar', 'dropD')],
  shifts: ALL_SHIFTS,
  capos: [0, 1, 2],
  wanted: 0,
  ...over,
})

beforeEach(() => {
  ended.count = 0
  losing.capo = -1
})

describe('a run of the sweep', () => {
  it('estimates every choice, works out the finalists, and tells its share as it grows', async () => {
    const q = question()
    const run = new FitRun(q)
    const shares: number[] = []
    const phases: string[] = []
    run.subscribe(() => {
      shares.push(run.snapshot().share)
      if (phases.at(-1) !== run.snapshot().phase) phases.push(run.snapshot().phase)
    })
    await run.start(q, USUAL_PREFERENCES)
    const { phase, estimates, worked, seconds } = run.snapshot()
    expect(phase).toBe('done')
    expect(phases).toEqual(['estimating', 'working', 'done'])
    expect(shares).toEqual([...shares].sort((a, b) => a - b))
    expect(shares.at(-1)).toBe(1)
    const settings = new Set(
      [...estimates.values()].map(({ choice: c }) => [c.tuning, c.shift, c.capo].join()),
    )
    expect(settings.size).toBe(2 * 12 * 3)
    expect(worked.size).toBeGreaterThanOrEqual(12)
    expect(seconds).toBeGreaterThan(0)
    for (const [id, { option, layer }] of worked) {
      expect(option.id).toBe(id)
      expect(option.estimated).toBe(false)
      expect(layer.notes.filter((n) => n.role === 'melody')).toHaveLength(10)
    }
    // Every choice once; what is worked out stands in place of its estimate.
    const all = optionsFor(run.snapshot(), q)
    expect(new Set(all.map((o) => o.id)).size).toBe(all.length)
    expect(all.filter((o) => !o.estimated)).toHaveLength(worked.size)
    expect(ended.count).toBe(2)
  })

  it('is stopped at once, keeps what it found, and takes nothing in afterwards', async () => {
    const q = question()
    const run = new FitRun(q)
    const over = run.start(q, USUAL_PREFERENCES)
    await vi.waitFor(() => expect(run.snapshot().estimates.size).toBeGreaterThan(0))
    run.cancel()
    const { phase, estimates } = run.snapshot()
    expect(phase).toBe('stopped')
    expect(ended.count).toBe(2)
    await Promise.race([over, new Promise((resolve) => setTimeout(resolve, 60))])
    expect(run.snapshot().estimates.size).toBe(estimates.size)
    expect(run.snapshot().worked.size).toBe(0)
  })

  it('works out on request what it only estimated, once', async () => {
    const q = question({ shifts: [0, 1, 2, 3] })
    const run = new FitRun(q)
    await run.start(q, USUAL_PREFERENCES)
    const guess = optionsFor(run.snapshot(), q).find((o) => o.estimated)!
    const before = run.snapshot().worked.size
    await run.workOut(guess.id)
    await vi.waitFor(() => expect(run.snapshot().worked.has(guess.id)).toBe(true))
    expect(run.snapshot().worked.size).toBe(before + 1)
    const workers = ended.count
    await run.workOut(guess.id)
    expect(ended.count).toBe(workers)
  })

  it('goes on without the choices over which a worker is lost, and counts them', async () => {
    const q = question({ shifts: [0, 2], capos: [0, 5] })
    losing.capo = 5
    const run = new FitRun(q)
    await run.start(q, USUAL_PREFERENCES)
    const { phase, estimates, failed } = run.snapshot()
    const lost = familiesOf(q).filter((f) => f.choices.some((c) => c.capo === 5))
    expect(phase).toBe('done')
    expect(failed).toBe(lost.flatMap((f) => f.choices).length)
    expect(estimates.size).toBe(familiesOf(q).flatMap((f) => f.choices).length - failed)
    expect(ended.count).toBe(2)
  })

  it('can be started again after a stop', async () => {
    const q = question({ shifts: [0], capos: [0, 2] })
    const run = new FitRun(q)
    void run.start(q, USUAL_PREFERENCES)
    run.cancel()
    await run.start(q, USUAL_PREFERENCES)
    expect(run.snapshot().phase).toBe('done')
    expect(run.snapshot().worked.size).toBe(familiesOf(q).flatMap((f) => f.choices).length)
  })
})

describe('answers that are kept', () => {
  it('serve another wished key and another singer, but not another tuning, capo or style', () => {
    const q = question()
    const run = fitRunFor(q)
    expect(fitRunFor(question({ wanted: 3, voice: { low: 50, high: 70 } }))).toBe(run)
    expect(fitRunFor(question({ capos: [0, 1] }))).not.toBe(run)
    expect(fitRunFor(question({ tunings: [q.tunings[0]!] }))).not.toBe(run)
    expect(fitRunFor(question({ regions: wholeTune(tune, 'drone', 2) }))).not.toBe(run)
  })

  it('are told apart by singer and wish when they are looked at', async () => {
    const q = question({ shifts: [0, 2], capos: [0] })
    const run = new FitRun(q)
    await run.start(q, USUAL_PREFERENCES)
    const plain = optionsFor(run.snapshot(), q)
    expect(plain.every((o) => o.sung === undefined)).toBe(true)
    const sung = optionsFor(run.snapshot(), { ...q, wanted: 2, voice: { low: 60, high: 65 } })
    expect(sung.every((o) => o.sung !== undefined)).toBe(true)
    for (const o of sung) expect(o.distance).toBe(2 - o.choice.shift)
    expect(new Set(sung.map((o) => o.distance))).toEqual(new Set([0, 2]))
  })
})
