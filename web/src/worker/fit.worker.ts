import {
  estimating,
  finish,
  workOut,
  type FitChoice,
  type FitFamily,
  type FitOption,
  type FitQuestion,
  type WorkedOut,
} from '@velvet-porch/core'
import { recordingPitch, type RecordingReading } from '@velvet-porch/core/listen'
import { expose } from 'comlink'

/** Windows of a recording between two reports of progress. */
const REPORT_EVERY = 40

let asked: FitQuestion | undefined

const api = {
  /** What the further calls are about. */
  ask(question: FitQuestion): void {
    asked = question
  },

  /** Estimates families one after the other; each is told, and known to be heard, before the next is begun. */
  async estimate(
    families: readonly FitFamily[],
    onOptions: (options: readonly FitOption[]) => void | Promise<void>,
  ): Promise<void> {
    for (const found of estimating(asked!, families)) await onOptions(found)
  },

  /** Arranges one choice in full. */
  workOut(choice: FitChoice): WorkedOut | undefined {
    return finish(workOut(asked!, choice))
  },

  /** How far a recording is off concert pitch, and the keys that it may be in. */
  listen(samples: Float32Array, rate: number, onProgress: (share: number) => void): RecordingReading {
    const run = recordingPitch(samples, rate)
    let item = run.next()
    for (let n = 0; !item.done; n++) {
      if (n % REPORT_EVERY === 0) onProgress(item.value)
      item = run.next()
    }
    return item.value
  },
}

export type FitApi = typeof api
expose(api)
