import { InstrumentVoice, type PlaySettings, type Performance } from '@velvet-porch/core/output/sound'

/** Seconds of sound that are made at once, and how far ahead of what is heard. */
const CHUNK_S = 0.1
const AHEAD_S = 0.4

/**
 * Plays a score from a file that is opened from a disk, where no audio thread of its own may be loaded: short pieces of
 * sound are made a little ahead and put one after the other.
 */
export class Strings {
  private context: AudioContext | undefined
  private voice: InstrumentVoice | undefined
  private timer: ReturnType<typeof setInterval> | undefined
  private next = 0
  private heard: { at: number; position: number; playing: boolean }[] = []
  private sounding = new Set<AudioBufferSourceNode>()
  private settings: PlaySettings = { tempo: 1 }
  private readonly strings: number
  private readonly onPosition: (position: number | undefined) => void

  /** @param onPosition called with the played tick about thirty times a second, and undefined at the end */
  constructor(strings: number, onPosition: (position: number | undefined) => void) {
    this.strings = strings
    this.onPosition = onPosition
  }

  get playing(): boolean {
    return this.timer !== undefined
  }

  set(settings: PlaySettings): void {
    this.settings = settings
    this.voice?.sequencer.set(settings)
  }

  async play(score: Performance, from: number): Promise<void> {
    this.stop()
    this.context ??= new AudioContext()
    if (this.context.state === 'suspended') await this.context.resume()
    this.voice = new InstrumentVoice(this.context.sampleRate, this.strings)
    this.voice.sequencer.load(score)
    this.voice.sequencer.set(this.settings)
    this.voice.sequencer.play(this.settings.loop?.from ?? from, false)
    this.next = this.context.currentTime + 0.05
    this.timer = setInterval(() => this.pump(), 30)
    this.pump()
  }

  stop(): void {
    if (this.timer === undefined) return
    clearInterval(this.timer)
    this.timer = undefined
    for (const source of this.sounding) source.stop()
    this.sounding.clear()
    this.heard = []
    this.onPosition(undefined)
  }

  private pump(): void {
    const { context, voice } = this
    if (!context || !voice) return
    while (this.next < context.currentTime + AHEAD_S) this.chunk(context, voice)
    const now = this.heard.findLast((h) => h.at <= context.currentTime)
    if (!now) return
    this.heard = this.heard.filter((h) => h.at >= now.at)
    if (now.playing) this.onPosition(now.position)
    else this.stop()
  }

  private chunk(context: AudioContext, voice: InstrumentVoice): void {
    const { playing, position } = voice.sequencer
    this.heard.push({ at: this.next, position, playing })
    const frames = Math.round(context.sampleRate * CHUNK_S)
    const buffer = context.createBuffer(1, frames, context.sampleRate)
    voice.render(buffer.getChannelData(0))
    const source = context.createBufferSource()
    source.buffer = buffer
    source.connect(context.destination)
    source.onended = () => this.sounding.delete(source)
    this.sounding.add(source)
    source.start(this.next)
    this.next += frames / context.sampleRate
  }
}
