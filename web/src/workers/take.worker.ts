import type { Score } from '@velvet-porch/core/document'
import {
  draftTune,
  latencyOf,
  playedMelody,
  takeCheck,
  type Draft,
  type ExpectedNote,
  type Latency,
  type PlayedIn,
  type PlayedNote,
  type TakeReading,
} from '@velvet-porch/core/input/audio'
import {
  simulatedTake,
  type MeantNote,
  type Mistake,
  type SimulatedRoom,
} from '@velvet-porch/core/output/sound'
import { transfer } from 'comlink'
import { inTurns } from './inTurns.ts'
import { serve } from './serve.ts'

const api = {
  /** What is heard of a take. */
  check(
    samples: Float32Array,
    rate: number,
    expected: readonly ExpectedNote[],
    latencyMs: number,
    onProgress: (share: number) => void,
  ): Promise<TakeReading> {
    return inTurns(takeCheck(samples, rate, expected, latencyMs), { onProgress })
  },

  /** How late the device is, from strings struck with clicks. */
  latency(samples: Float32Array, rate: number, clicks: readonly number[]): Promise<Latency | undefined> {
    return inTurns(latencyOf(samples, rate, clicks))
  },

  /** The notes of a melody that was played in. */
  melody(
    samples: Float32Array,
    rate: number,
    on: PlayedIn,
    onProgress: (share: number) => void,
  ): Promise<readonly PlayedNote[]> {
    return inTurns(playedMelody(samples, rate, on), { onProgress })
  },

  /** The draft of a tune from them. */
  draft(played: readonly PlayedNote[], draft: Draft): Promise<Score> {
    return inTurns(draftTune(played, draft))
  },

  /** A take of a simulated student. */
  simulated(
    notes: readonly MeantNote[],
    mistakes: ReadonlyMap<number, Mistake>,
    rate: number,
    room: SimulatedRoom,
  ): Float32Array {
    const samples = simulatedTake(notes, mistakes, rate, room)
    return transfer(samples, [samples.buffer])
  },
}

export type TakeApi = typeof api
serve(api)
