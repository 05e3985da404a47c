import { steadyPitch, withPitch, type PitchesHeard, type StringPitch } from '@velvet-porch/core/input/audio'
import { transfer } from 'comlink'
import { useEffect, useState } from 'react'
import { Supervised } from '../../workers/supervised.ts'
import type { TunerApi } from '../../workers/tuner.worker.ts'
import { hearingFault, type HearingFault } from '../../score/hearing/microphone.ts'
import type { SoundSource } from './soundSource.ts'

/** What a tuner hears. */
export interface Heard {
  readonly state: 'off' | 'asking' | 'listening' | HearingFault
  /** Hertz of the string that sounds, steadied; the last one stays for a while. */
  readonly pitch: number | undefined
}

const SILENT: Heard = { state: 'off', pitch: undefined }

/** Looks without a string after which the needle lets go. */
const LETS_GO_AFTER = 25

/**
 * The pitch of the string that sounds, from a source, while there is one. Found in a worker: what comes while it is at work is left out.
 * @param source undefined: nothing is listened to
 */
export function useHeardPitch(source: SoundSource | undefined): Heard {
  const [heard, setHeard] = useState<Heard>(SILENT)
  useEffect(() => {
    if (!source) return undefined
    const worker = new Supervised<TunerApi>(
      () => new Worker(new URL('../../workers/tuner.worker.ts', import.meta.url), { type: 'module' }),
    )
    let over = false
    let busy = false
    let pitches: PitchesHeard = []
    let silent = 0
    let close: (() => void) | undefined
    const take = (found: StringPitch | undefined) => {
      busy = false
      if (over) return
      silent = found ? 0 : silent + 1
      if (found) pitches = withPitch(pitches, found.hertz)
      else if (silent >= LETS_GO_AFTER) pitches = []
      setHeard({ state: 'listening', pitch: steadyPitch(pitches) })
    }
    setHeard({ state: 'asking', pitch: undefined })
    source((samples, rate) => {
      if (busy || over) return
      busy = true
      worker.call('pitch', transfer(samples, [samples.buffer]), rate).then(take, () => take(undefined))
    }).then(
      (end) => {
        if (over) return end()
        close = end
        setHeard({ state: 'listening', pitch: undefined })
      },
      (error: unknown) => {
        if (!over) setHeard({ state: hearingFault(error), pitch: undefined })
      },
    )
    return () => {
      over = true
      close?.()
      worker.end()
      setHeard(SILENT)
    }
  }, [source])
  return heard
}
