// @vitest-environment jsdom
import 'fake-indexeddb/auto'
import { lessonOf, USUAL_LESSON, USUAL_WAY } from '@velvet-porch/core/lesson'
import { act, cleanup, renderHook, waitFor } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { useClimb } from '../src/features/practise/useClimb.ts'
import { useElapsed } from '../src/features/practise/useElapsed.ts'
import type { Practice } from '../src/features/practise/usePractice.ts'
import { useRecording } from '../src/features/practise/useRecording.ts'
import { sheetModel } from '../src/score/sheet/sheetModel.ts'
import { player } from '../src/score/playback/player.ts'
import { db } from '../src/state/db.ts'
import { writeEntry } from '../src/state/logs.ts'
import { useOneByOne } from '../src/ui/useOneByOne.ts'
import { stubBrowser } from './browserStubs.ts'
import { arrangementFor, tuneOf } from './support.ts'

const tune = tuneOf('"C"cdec|"G"g4|"C"c4|"F"f4|"C"c4|"G"g4|"C"c4|"C"c4|]')
const doc = arrangementFor(tune)
const model = sheetModel(tune, doc)

beforeEach(async () => {
  stubBrowser()
  await Promise.all(db.tables.map((t) => t.clear()))
})
afterEach(() => {
  cleanup()
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

describe('a piece that climbs', () => {
  const TEMPOS = [72, 96, 120]
  const climbing = () => {
    const lesson = lessonOf(tune, doc, USUAL_LESSON)
    const practice = {
      ...{ lesson, piece: lesson.pieces[0], student: undefined, unit: 'phrase', today: '2026-03-02' },
      way: USUAL_WAY,
    } as unknown as Practice
    const written = vi.fn()
    const hook = renderHook(() => useClimb(practice, TEMPOS, written))
    const went = (...all: boolean[]) => act(() => all.forEach((w) => hook.result.current.went(w)))
    return { now: () => hook.result.current, went, written, leave: hook.unmount }
  }

  it('is played at the tempo of its rung, and at the tune’s own once it is left', () => {
    const { went, leave } = climbing()
    expect(player.snapshot().tempo).toBeCloseTo(72 / 120)
    went(true, true, true)
    expect(player.snapshot().tempo).toBeCloseTo(96 / 120)
    went(false, false)
    expect(player.snapshot().tempo).toBeCloseTo(72 / 120)
    leave()
    expect(player.snapshot().tempo).toBe(1)
  })

  it('is written down once it was tried, with what was clean', async () => {
    const climb = climbing()
    expect(climb.now().canWrite).toBe(false)
    climb.went(true, true, true, true)
    expect(climb.now().canWrite).toBe(true)
    await act(() => climb.now().write())
    const entry = { day: '2026-03-02', piece: 1, bpm: 72, clean: 3, minutes: 1, note: '' }
    expect(climb.written).toHaveBeenCalledWith(entry)
    expect((await db.logs.get(tune.id))!.entries).toEqual([entry])
    expect(climb.now().canWrite).toBe(false)
  })
})

it('entries of other pieces are laid aside and go on when their unit is used again: none is lost', async () => {
  const entry = (piece: number) => ({ day: '2026-03-02', piece, bpm: 60, clean: 3, minutes: 5, note: '' })
  const kept = async () => (await db.logs.get(`${tune.id} wren`))!.entries.map((e) => e.piece)
  await writeEntry(tune.id, 'wren', 'phrase', entry(1))
  await writeEntry(tune.id, 'wren', 'measure', entry(11))
  expect(await kept()).toEqual([11])
  await writeEntry(tune.id, 'wren', 'phrase', entry(2))
  expect(await kept()).toEqual([1, 2])
  await writeEntry(tune.id, 'wren', 'measure', entry(12))
  expect(await kept()).toEqual([11, 12])
  // Each stands once, wherever it lies.
  const all = (await db.logs.toArray()).flatMap((row) => row.entries.map((e) => e.piece))
  expect(all.sort((a, b) => a - b)).toEqual([1, 2, 11, 12])
})

it('a clock runs while it is wanted, and goes on from where it stood', () => {
  vi.useFakeTimers()
  const hook = renderHook(({ on }) => useElapsed(on), { initialProps: { on: true } })
  act(() => void vi.advanceTimersByTime(65_000))
  expect(hook.result.current.seconds).toBe(65)
  hook.rerender({ on: false })
  act(() => void vi.advanceTimersByTime(30_000))
  expect(hook.result.current.seconds).toBe(65)
  hook.rerender({ on: true })
  act(() => void vi.advanceTimersByTime(5_000))
  expect(hook.result.current.seconds).toBe(70)
})

describe('what is worked out one after the other', () => {
  it('comes in order, when all of it is known', async () => {
    const items = [3, 1, 2]
    const of = (n: number) => new Promise<number>((resolve) => setTimeout(() => resolve(n * n), n))
    const hook = renderHook(() => useOneByOne(items, of))
    expect(hook.result.current).toBeUndefined()
    await waitFor(() => expect(hook.result.current).toEqual([9, 1, 4]))
  })

  it('is dropped where other items come meanwhile', async () => {
    const seen: number[] = []
    const of = (n: number) => {
      seen.push(n)
      return n
    }
    const first = Array.from({ length: 50 }, (_, i) => i)
    const hook = renderHook(({ items }) => useOneByOne(items, of), { initialProps: { items: first } })
    hook.rerender({ items: [100, 101] })
    await waitFor(() => expect(hook.result.current).toEqual([100, 101]))
    expect(seen.filter((n) => n < 100).length).toBeLessThan(50)
  })
})

describe('a recording of one’s own', () => {
  /** An audio element without sound: its time goes where it is put. */
  class Sound {
    static last: Sound
    currentTime = 0
    playbackRate = 1
    preservesPitch = false
    paused = true
    onplay: (() => void) | undefined
    onpause: (() => void) | undefined
    onerror: (() => void) | undefined
    constructor() {
      Sound.last = this
    }
    play() {
      this.paused = false
      this.onplay?.()
      return Promise.resolve()
    }
    pause() {
      this.paused = true
      this.onpause?.()
    }
  }
  let frames: FrameRequestCallback[] = []
  const frame = () => act(() => frames.splice(0).forEach((f) => f(0)))

  beforeEach(() => {
    frames = []
    vi.stubGlobal('Audio', Sound)
    vi.stubGlobal('requestAnimationFrame', (f: FrameRequestCallback) => frames.push(f))
    vi.stubGlobal('cancelAnimationFrame', () => (frames = []))
    URL.createObjectURL = () => 'blob:tape'
    URL.revokeObjectURL = () => undefined
  })

  async function opened(looped?: { from: number; to: number }) {
    const follow = vi.fn()
    const hook = renderHook(() => useRecording(model, looped, follow))
    await waitFor(async () => expect(await db.recordings.count()).toBe(0))
    act(() => hook.result.current.open(new File(['tape'], 'porch.wav')))
    await waitFor(() => expect(hook.result.current.name).toBe('porch.wav'))
    const markAt = (seconds: number) => {
      Sound.last.currentTime = seconds
      act(() => hook.result.current.mark())
    }
    return { now: () => hook.result.current, follow, markAt }
  }

  it('has the pitch of its own at any speed', async () => {
    const tape = await opened()
    act(() => tape.now().setSpeed(0.6))
    expect(Sound.last.playbackRate).toBe(0.6)
    expect(Sound.last.preservesPitch).toBe(true)
  })

  it('leads the sheet by its marks, steady between them', async () => {
    const tape = await opened()
    tape.markAt(1)
    tape.markAt(3)
    act(() => tape.now().toggle())
    Sound.last.currentTime = 6
    frame()
    // Two seconds a measure from the first second on: the middle of the third measure.
    expect(tape.follow).toHaveBeenLastCalledWith({ measure: 2, tick: tune.measures[2]!.length / 2 })
  })

  it('begins at the loop and goes back to its beginning', async () => {
    const tape = await opened({ from: 2, to: 3 })
    tape.markAt(1)
    tape.markAt(3)
    act(() => tape.now().toggle())
    expect(Sound.last.currentTime).toBe(5)
    Sound.last.currentTime = 9.2
    frame()
    expect(Sound.last.currentTime).toBe(5)
  })

  it('lets no mark be laid beyond the end of the tune', async () => {
    const tape = await opened()
    for (let i = 0; i < tune.measures.length + 3; i++) tape.markAt(i + 1)
    expect(tape.now().marks).toHaveLength(tune.measures.length)
  })

  it('is kept on purpose alone, with its marks, and forgotten again', async () => {
    const tape = await opened()
    tape.markAt(2)
    expect(await db.recordings.count()).toBe(0)
    await act(() => tape.now().keep())
    await waitFor(() => expect(tape.now().isKept).toBe(true))
    tape.markAt(4)
    await waitFor(async () => expect((await db.recordings.get(tune.id))!.marks).toHaveLength(2))
    await act(() => tape.now().forget())
    await waitFor(() => expect(tape.now().name).toBeUndefined())
    expect(await db.recordings.count()).toBe(0)
  })

  it('that cannot be played says so', async () => {
    const tape = await opened()
    act(() => Sound.last.onerror?.())
    expect(tape.now().failed).toBe(true)
  })
})
