import type { Score } from '@velvet-porch/core/document'
import type { Draft, PlayedIn, PlayedNote } from '@velvet-porch/core/input/audio'
import { measureLength } from '@velvet-porch/core/music'
import { proxy } from 'comlink'
import { useState } from 'react'
import type { Take } from '../../score/hearing/recordWithClicks.ts'
import { takeFault, useListener, type TakeFault } from '../../score/hearing/useListener.ts'
import { currentPrefs } from '../../state/prefs.ts'
import { clicksIn, simulatedPhrase } from './playedIn.ts'

/** Where playing in stands. */
export type PlayInState =
  | { readonly kind: 'idle' | 'asking' | 'countingIn' | 'nothing' }
  /** With the measure that is being played. */
  | { readonly kind: 'recording'; readonly measure: number }
  | { readonly kind: 'listening'; readonly share: number }
  | { readonly kind: 'fault'; readonly fault: TakeFault }
  | { readonly kind: 'heard'; readonly played: readonly PlayedNote[]; readonly score: Score }

const RATE = 44_100
const ROOM = { latency: 0.06, noise: 0.004 }

/** How it is played in, by whom, and what the draft is written as. */
export interface PlayInOrder {
  readonly by: 'microphone' | 'simulated'
  readonly on: Omit<PlayedIn, 'latencyMs'>
  readonly draft: Draft
}

/** Plays a melody in, from the count-in to the draft of a tune. */
export function usePlayIn() {
  const [state, setState] = useState<PlayInState>({ kind: 'idle' })
  const listener = useListener()
  const show = (next: PlayInState) => {
    if (!listener.isOver()) setState(next)
  }

  const takeOf = async ({ by, on, draft }: PlayInOrder): Promise<Take | undefined> => {
    if (by === 'simulated')
      return {
        samples: await listener
          .ask()
          .call('simulated', simulatedPhrase(2 * on.grid, on.bpm), new Map(), RATE, ROOM),
        rate: RATE,
      }
    show({ kind: 'asking' })
    const score = clicksIn(draft.metre, on.bpm)
    const length = measureLength(draft.metre)
    const onPosition = (position: number, countingIn: boolean) =>
      show(
        countingIn
          ? { kind: 'countingIn' }
          : { kind: 'recording', measure: Math.floor(position / length) + 1 },
      )
    return listener.record({ score, from: 0, to: score.length, tempo: 1 }, onPosition)
  }

  const start = async (order: PlayInOrder) => {
    try {
      const take = await takeOf(order)
      if (!take) return show({ kind: 'idle' })
      show({ kind: 'listening', share: 0 })
      const latencyMs = order.by === 'simulated' ? 1000 * ROOM.latency : (currentPrefs().delayMs ?? 0)
      const onProgress = proxy((share: number) => show({ kind: 'listening', share }))
      const played = await listener
        .ask()
        .call('melody', take.samples, take.rate, { ...order.on, latencyMs }, onProgress)
      if (played.length === 0) return show({ kind: 'nothing' })
      show({ kind: 'heard', played, score: await listener.ask().call('draft', played, order.draft) })
    } catch (error) {
      show({ kind: 'fault', fault: takeFault(error) })
    }
  }
  return { state, start, stop: listener.stop }
}
