import {
  expectedNotes,
  secondsFrom,
  type ExpectedNote,
  type TakeReading,
} from '@velvet-porch/core/input/audio'
import type { Setup } from '@velvet-porch/core/instrument'
import { QUARTER } from '@velvet-porch/core/music'
import type { Mistake, Performance } from '@velvet-porch/core/output/sound'
import { useState } from 'react'
import type { Clicked, Take } from '../../../score/hearing/recordWithClicks.ts'
import { takeFault, useListener, type TakeFault } from '../../../score/hearing/useListener.ts'
import { player } from '../../../score/playback/player.ts'
import { setPrefs, usePrefs } from '../../../state/prefs.ts'

/** Who plays: somebody before the microphone, or the simulated student that stands in. */
export type TakePlayer = 'microphone' | 'simulated'

/** Mistakes that the simulated student can be asked for. */
export const SLIPS = ['fret', 'missed', 'late'] as const
export type Slip = (typeof SLIPS)[number]

/** Where a take stands. */
export type TakeState =
  | { readonly kind: 'idle' }
  | { readonly kind: 'asking' }
  | { readonly kind: 'countingIn' }
  | { readonly kind: 'recording' }
  | { readonly kind: 'listening'; readonly share: number }
  | { readonly kind: 'fault'; readonly fault: TakeFault }
  /** The delay could not be measured. */
  | { readonly kind: 'noDelay' }
  | { readonly kind: 'heard'; readonly reading: TakeReading; readonly expected: readonly ExpectedNote[] }

const IDLE: TakeState = { kind: 'idle' }

/** Eight clicks with which a string is struck, to measure how late the device is. */
const DELAY_CLICKS = 8
const DELAY_SCORE: Performance = {
  notes: [],
  clicks: Array.from({ length: DELAY_CLICKS }, (_, i) => ({
    at: i * QUARTER,
    strong: i % 4 === 0,
    number: (i % 4) + 1,
  })),
  tempos: [{ at: 0, bpm: 72 }],
  length: DELAY_CLICKS * QUARTER,
  beat: QUARTER,
  countIn: 4,
}

/** Where the simulated student sits, and what it strikes with the clicks. */
const ROOM = { latency: 0.09, noise: 0.004 }
const RATE = 44_100
const OPEN_STRING = { string: 2, hertz: 246.94 }

/** A take of what is looped, from its count-in to what was heard of it. */
export function useTake(by: TakePlayer, slips: readonly Slip[], setup: Setup | undefined) {
  const { delayMs } = usePrefs()
  const [simulatedDelay, setSimulatedDelay] = useState<number>()
  const [state, setState] = useState<TakeState>(IDLE)
  const listener = useListener()
  const delay = by === 'microphone' ? delayMs : simulatedDelay
  /** Somebody plays with the clicks. Undefined where it was stopped before it began. */
  const record = (clicked: Clicked): Promise<Take | undefined> => {
    setState({ kind: 'asking' })
    return listener.record(clicked, (_, countingIn) => {
      if (!listener.isOver()) setState({ kind: countingIn ? 'countingIn' : 'recording' })
    })
  }

  /** Runs what may fail, and says why where it does. */
  const tried = async (work: () => Promise<TakeState>) => {
    try {
      const next = await work()
      if (!listener.isOver()) setState(next)
    } catch (error) {
      if (!listener.isOver()) setState({ kind: 'fault', fault: takeFault(error) })
    }
  }

  const measureDelay = () =>
    tried(async () => {
      const second = secondsFrom(DELAY_SCORE, 0, 1)
      const clicks = DELAY_SCORE.clicks.map((c) => second(c.at))
      const take =
        by === 'microphone'
          ? await record({ score: DELAY_SCORE, from: 0, to: DELAY_SCORE.length, tempo: 1 })
          : {
              samples: await listener.ask().call(
                'simulated',
                clicks.map((seconds) => ({ ...OPEN_STRING, seconds, rings: 0.6 })),
                new Map(),
                RATE,
                ROOM,
              ),
              rate: RATE,
            }
      if (!take) return IDLE
      setState({ kind: 'listening', share: 0 })
      const found = await listener.ask().call('latency', take.samples, take.rate, clicks)
      if (!found) return { kind: 'noDelay' }
      if (by === 'microphone') setPrefs({ delayMs: found.latencyMs })
      else setSimulatedDelay(found.latencyMs)
      return IDLE
    })

  const takeOf = async (clicked: Clicked, expected: readonly ExpectedNote[]): Promise<Take | undefined> =>
    by === 'microphone'
      ? record(clicked)
      : {
          samples: await listener.ask().call('simulated', expected, mistakesIn(expected, slips), RATE, ROOM),
          rate: RATE,
        }

  const start = () =>
    tried(async () => {
      const heard = player.toBeHeard()
      if (!heard || !setup || delay === undefined) return IDLE
      const { score, settings } = heard
      const loop = settings.loop ?? { from: 0, to: score.length }
      const { tempo } = settings
      const expected = expectedNotes(score, loop, tempo, setup)
      const take = await takeOf({ score, ...loop, tempo }, expected)
      if (!take) return IDLE
      setState({ kind: 'listening', share: 0 })
      const { proxy } = await import('comlink')
      const onProgress = proxy((share: number) => {
        if (!listener.isOver()) setState({ kind: 'listening', share })
      })
      const reading = await listener.ask().call('check', take.samples, take.rate, expected, delay, onProgress)
      return { kind: 'heard', reading, expected }
    })

  return {
    state,
    delay,
    measureDelay,
    start,
    stop: listener.stop,
    forget: () => setState(IDLE),
  }
}

/** Seconds that a late note is late. */
const LATE_S = 0.12
/** Seconds around a note that is struck alone. */
const ALONE_S = 0.05

/** The chosen mistakes, each at a note that is struck alone: a third, a half and three quarters of the way. */
function mistakesIn(expected: readonly ExpectedNote[], slips: readonly Slip[]): ReadonlyMap<number, Mistake> {
  const alone = expected.flatMap((n, i) =>
    n.isStruck && expected.every((o) => o === n || Math.abs(o.seconds - n.seconds) > ALONE_S) ? [i] : [],
  )
  const struck = alone.length > 0 ? alone : expected.map((_, i) => i)
  const at = (share: number) => struck[Math.floor(share * (struck.length - 1))] ?? 0
  const mistakes = new Map<number, Mistake>()
  if (slips.includes('fret')) mistakes.set(at(0.33), { kind: 'fret', by: 1 })
  if (slips.includes('missed')) mistakes.set(at(0.55), { kind: 'missed' })
  if (slips.includes('late')) mistakes.set(at(0.8), { kind: 'late', seconds: LATE_S })
  return mistakes
}
