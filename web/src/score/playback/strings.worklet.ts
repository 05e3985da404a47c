import { InstrumentVoice, type PlaySettings, type Performance } from '@velvet-porch/core/output/sound'

/** What the page tells the audio thread. */
export type ToStrings =
  | { readonly kind: 'load'; readonly score: Performance }
  | { readonly kind: 'set'; readonly settings: PlaySettings }
  | { readonly kind: 'play'; readonly from: number; readonly countIn: boolean }
  | { readonly kind: 'stop' }
  | { readonly kind: 'pluck'; readonly string: number; readonly hertz: number }

/** What it tells back, about thirty times a second while playing. */
export interface FromStrings {
  /** Sample of the audio clock at which the position is reached. */
  readonly frame: number
  readonly position: number
  readonly playing: boolean
  readonly countingIn: boolean
}

// The audio thread's globals are in no TypeScript library.
declare const sampleRate: number
declare const currentFrame: number
declare function registerProcessor(name: string, processor: unknown): void
declare class AudioWorkletProcessor {
  readonly port: MessagePort
}

const REPORT_BLOCKS = 12

class StringsProcessor extends AudioWorkletProcessor {
  private readonly voice = new InstrumentVoice(sampleRate)
  private blocks = 0
  private wasPlaying = false

  constructor() {
    super()
    this.port.onmessage = ({ data }: MessageEvent<ToStrings>) => {
      const { sequencer } = this.voice
      if (data.kind === 'load') sequencer.load(data.score)
      else if (data.kind === 'set') sequencer.set(data.settings)
      else if (data.kind === 'play') sequencer.play(data.from, data.countIn)
      else if (data.kind === 'pluck') this.voice.pluck(data.string, data.hertz)
      else {
        sequencer.stop()
        this.voice.silence()
      }
    }
  }

  process(_inputs: Float32Array[][], outputs: Float32Array[][]): boolean {
    const channels = outputs[0]!
    this.voice.render(channels[0]!)
    for (let c = 1; c < channels.length; c++) channels[c]!.set(channels[0]!)
    const { playing, position, countingIn } = this.voice.sequencer
    if ((playing && this.blocks++ % REPORT_BLOCKS === 0) || playing !== this.wasPlaying) {
      const frame = currentFrame + channels[0]!.length
      this.port.postMessage({ frame, position, playing, countingIn } satisfies FromStrings)
    }
    this.wasPlaying = playing
    return true
  }
}

registerProcessor('velvet-strings', StringsProcessor)
