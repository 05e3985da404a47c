import { useEffect, useMemo, useRef } from 'react'
import { Supervised } from '../../workers/supervised.ts'
import type { TakeApi } from '../../workers/take.worker.ts'
import { player } from '../playback/player.ts'
import { MicrophoneError, type HearingFault } from './microphone.ts'
import { recordWithClicks, type Clicked, type Take, type TakeUnderWay } from './recordWithClicks.ts'

/** Why nothing was heard: the microphone, or the listening itself. */
export type TakeFault = HearingFault | 'broken'

export const takeFault = (error: unknown): TakeFault =>
  error instanceof MicrophoneError ? error.fault : 'broken'

/** Somebody who listens: the worker that is asked, and the recording that is under way; both end with the page. */
export function useListener() {
  const underWay = useRef<TakeUnderWay>(undefined)
  const worker = useRef<Supervised<TakeApi>>(undefined)
  const over = useRef(false)
  useEffect(() => {
    over.current = false
    return () => {
      over.current = true
      underWay.current?.stop()
      worker.current?.end()
      worker.current = undefined
    }
  }, [])
  return useMemo(
    () => ({
      /** True once the page is gone: nothing is shown any more. */
      isOver: () => over.current,
      ask: () =>
        (worker.current ??= new Supervised<TakeApi>(
          () => new Worker(new URL('../../workers/take.worker.ts', import.meta.url), { type: 'module' }),
        )),
      /**
       * Somebody plays with clicks. Undefined where it was stopped before the first beat.
       * @throws MicrophoneError
       */
      async record(
        clicked: Clicked,
        onPosition: (position: number, countingIn: boolean) => void,
      ): Promise<Take | undefined> {
        player.stop()
        underWay.current = await recordWithClicks(clicked, onPosition)
        return underWay.current.done
      },
      stop: () => underWay.current?.stop(),
    }),
    [],
  )
}
