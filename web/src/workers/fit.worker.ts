import {
  estimating,
  workOut,
  type FitChoice,
  type FitFamily,
  type FitOption,
  type FitQuestion,
  type WorkedOut,
} from '@velvet-porch/core/arrange'
import { recordingPitch, type RecordingReading } from '@velvet-porch/core/input/audio'
import { inTurns } from './inTurns.ts'
import { serve } from './serve.ts'

const api = {
  /** Nothing: a worker that is asked this has its code ready afterwards. */
  prepare(): void {},

  /** Estimates families one after the other; each is reported, and its report received, before the next is begun. */
  async estimate(
    question: FitQuestion,
    families: readonly FitFamily[],
    onOptions: (options: readonly FitOption[]) => void | Promise<void>,
  ): Promise<void> {
    const run = estimating(question, families)
    for (;;) {
      const options = await inTurns(nextFamily(run))
      if (options === undefined) return
      await onOptions(options)
    }
  },

  /** Arranges one choice in full. */
  workOut(question: FitQuestion, choice: FitChoice): Promise<WorkedOut | undefined> {
    return inTurns(workOut(question, choice))
  },

  /** How far a recording is off concert pitch, and the keys that it may be in. */
  listen(
    samples: Float32Array,
    rate: number,
    onProgress: (share: number) => void,
  ): Promise<RecordingReading> {
    return inTurns(recordingPitch(samples, rate), { onProgress })
  },
}

/** Runs estimates on to the next family that is done; undefined where there is none. */
function* nextFamily(
  run: ReturnType<typeof estimating>,
): Generator<undefined, readonly FitOption[] | undefined> {
  for (let item = run.next(); ; item = run.next()) {
    if (item.done) return undefined
    if (item.value) return item.value
    yield
  }
}

export type FitApi = typeof api
serve(api)
