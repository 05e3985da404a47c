import { secondsFrom } from '@velvet-porch/core/input/audio'
import type { Performance } from '@velvet-porch/core/output/sound'
import type { FromStrings, ToStrings } from '../playback/strings.worklet.ts'
import stringsUrl from '../playback/strings.worklet.ts?worker&url'
import { closeMicrophone, openMicrophone } from './microphone.ts'
import type { HeardPiece } from './recorder.worklet.ts'
import recorderUrl from './recorder.worklet.ts?worker&url'

/** What was recorded, from the first beat after the count-in on. */
export interface Take {
  readonly samples: Float32Array
  readonly rate: number
}

/** A recording that is under way. */
export interface TakeUnderWay {
  /** Ends it before its time: what was heard until then is the take. */
  readonly stop: () => void
  /** Undefined where it was stopped before the first beat. */
  readonly done: Promise<Take | undefined>
}

/** What is clicked, and how fast. */
export interface Clicked {
  readonly score: Performance
  readonly from: number
  readonly to: number
  /** Share of the written tempo. */
  readonly tempo: number
}

/** Milliseconds that are heard after the last beat: devices are late, strings ring. */
const AFTER_MS = 900

/**
 * Counts in, clicks the beats of a stretch and records the microphone meanwhile; nothing else sounds. Both run on one audio clock, so
 * that what is heard stands where it was played.
 * @param onPosition the played tick, and whether it still counts in
 * @throws MicrophoneError
 */
export async function recordWithClicks(
  { score, from, to, tempo }: Clicked,
  onPosition: (position: number, countingIn: boolean) => void,
): Promise<TakeUnderWay> {
  const stream = await openMicrophone()
  const context = new AudioContext({ latencyHint: 'interactive' })
  try {
    await Promise.all([
      context.audioWorklet.addModule(stringsUrl),
      context.audioWorklet.addModule(recorderUrl),
    ])
    if (context.state === 'suspended') await context.resume()
  } catch (error) {
    closeMicrophone(stream)
    void context.close()
    throw error
  }
  const recorder = new AudioWorkletNode(context, 'velvet-recorder', { numberOfOutputs: 0 })
  context.createMediaStreamSource(stream).connect(recorder)
  const strings = new AudioWorkletNode(context, 'velvet-strings', {
    numberOfInputs: 0,
    outputChannelCount: [2],
  })
  strings.connect(context.destination)
  const pieces: HeardPiece[] = []
  recorder.port.onmessage = ({ data }: MessageEvent<HeardPiece>) => void pieces.push(data)
  const rate = context.sampleRate
  const seconds = secondsFrom(score, from, tempo)
  let firstFrame: number | undefined
  let ending: (() => void) | undefined
  const done = new Promise<Take | undefined>((resolve) => {
    let over = false
    ending = () => {
      if (over) return
      over = true
      closeMicrophone(stream)
      void context.close()
      resolve(firstFrame === undefined ? undefined : { samples: joined(pieces, firstFrame), rate })
    }
  })
  strings.port.onmessage = ({ data }: MessageEvent<FromStrings>) => {
    if (data.playing) {
      if (!data.countingIn) firstFrame ??= data.frame - Math.round(seconds(data.position) * rate)
      onPosition(data.position, data.countingIn)
    } else if (firstFrame !== undefined) setTimeout(() => ending?.(), AFTER_MS)
  }
  const send = (message: ToStrings) => strings.port.postMessage(message)
  const clicks = score.clicks.filter((c) => c.at >= from && c.at < to)
  send({ kind: 'load', score: { ...score, notes: [], clicks, length: to } })
  send({ kind: 'set', settings: { tempo, balance: { metronome: 'full' } } })
  send({ kind: 'play', from, countIn: true })
  return { stop: () => ending?.(), done }
}

/** Pieces as one, from a sample of the audio clock on. */
function joined(pieces: readonly HeardPiece[], from: number): Float32Array {
  const last = pieces.at(-1)
  const out = new Float32Array(Math.max(0, last ? last.frame + last.samples.length - from : 0))
  for (const { frame, samples } of pieces) {
    const at = frame - from
    if (at + samples.length <= 0 || at >= out.length) continue
    out.set(at < 0 ? samples.subarray(-at) : samples, Math.max(0, at))
  }
  return out
}
