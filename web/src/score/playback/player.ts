import type { Balance, Performance, PlaySettings } from '@velvet-porch/core/output/sound'
import { tempoAfter, type Ladder } from './ladder.ts'
import type { FromStrings, ToStrings } from './strings.worklet.ts'
import workletUrl from './strings.worklet.ts?worker&url'

export interface PlayerState {
  readonly playing: boolean
  readonly tempo: number
  readonly countIn: boolean
  readonly loop: { readonly from: number; readonly to: number } | undefined
  /** How loud each voice is. */
  readonly balance: Balance
  /** Loops after which the tempo rises. */
  readonly ladder: Ladder
  readonly failed: boolean
}

/** The page's handle on the audio thread. One for the whole app; state for views, position for the cursor. */
class Player {
  private state: PlayerState = {
    playing: false,
    tempo: 1,
    countIn: false,
    loop: undefined,
    balance: {},
    ladder: 0,
    failed: false,
  }
  private readonly listeners = new Set<() => void>()
  private readonly followers = new Set<(tick: number | undefined) => void>()
  private node: AudioWorkletNode | undefined
  private context: AudioContext | undefined
  private starting: Promise<void> | undefined
  private music: (() => Performance) | undefined
  private score: Performance | undefined
  private loaded = false
  private expectPlaying = false
  /** Counts what was asked: whoever stops while the sound is still starting is not answered with music. */
  private asked = 0
  /** Loops played since tempo or loop were set, and the last position. */
  private loops = 0
  private last = 0

  readonly subscribe = (listener: () => void) => {
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }
  readonly snapshot = () => this.state

  /** Follows the played tick while playing; undefined when it stops. */
  follow(follower: (tick: number | undefined) => void): () => void {
    this.followers.add(follower)
    return () => this.followers.delete(follower)
  }

  /** Gives the music that Play will play, made when it is first played. Playing stops. */
  load(music: (() => Performance) | undefined): void {
    this.stop()
    this.music = music
    this.score = undefined
    this.loaded = false
  }

  /** True where Play would play this music. */
  readonly holds = (music: (() => Performance) | undefined): boolean => this.music === music

  set(change: Partial<Pick<PlayerState, 'tempo' | 'countIn' | 'loop' | 'balance' | 'ladder'>>): void {
    // Whoever moves tempo or loop by hand begins to count anew.
    this.loops = 0
    this.update(change)
    this.sendSettings()
  }

  async play(from: number): Promise<void> {
    this.score ??= this.music?.()
    if (!this.score) return
    const asked = ++this.asked
    try {
      await this.start()
    } catch {
      this.update({ failed: true })
      return
    }
    if (asked !== this.asked) return
    if (!this.loaded) this.send({ kind: 'load', score: this.score })
    this.loaded = true
    this.sendSettings()
    const { loop } = this.state
    this.loops = 0
    this.last = 0
    this.expectPlaying = true
    this.send({ kind: 'play', from: loop ? loop.from : from, countIn: this.state.countIn })
    this.update({ playing: true, failed: false })
  }

  stop(): void {
    this.asked++
    this.expectPlaying = false
    this.send({ kind: 'stop' })
    this.ended()
  }

  /** What Play would sound, and how; undefined where there is no music. */
  toBeHeard(): { readonly score: Performance; readonly settings: PlaySettings } | undefined {
    this.score ??= this.music?.()
    return this.score && { score: this.score, settings: this.settings() }
  }

  /** Sounds one place now. */
  async pluck(string: number, hertz: number): Promise<void> {
    try {
      await this.start()
      this.send({ kind: 'pluck', string, hertz })
    } catch {
      this.update({ failed: true })
    }
  }

  private settings(): PlaySettings {
    const { tempo, balance, loop } = this.state
    return { tempo, balance, ...(loop ? { loop } : {}) }
  }

  private sendSettings(): void {
    this.send({ kind: 'set', settings: this.settings() })
  }

  private start(): Promise<void> {
    this.starting ??= (async () => {
      this.context = new AudioContext({ latencyHint: 'interactive' })
      await this.context.audioWorklet.addModule(workletUrl)
      this.node = new AudioWorkletNode(this.context, 'velvet-strings', {
        numberOfInputs: 0,
        outputChannelCount: [2],
      })
      this.node.port.onmessage = ({ data }: MessageEvent<FromStrings>) => this.heard(data)
      this.node.connect(this.context.destination)
    })().catch((error: unknown) => {
      this.starting = undefined
      throw error
    })
    return this.starting.then(async () => {
      if (this.context?.state === 'suspended') await this.context.resume()
    })
  }

  private heard({ playing, position, countingIn }: FromStrings): void {
    if (!this.expectPlaying) return
    if (!playing) {
      this.expectPlaying = false
      this.ended()
    } else if (!countingIn) {
      this.countLoops(position)
      this.followers.forEach((f) => f(position))
    }
  }

  /** A loop begins again where the position goes back: then the tempo may rise. */
  private countLoops(position: number): void {
    const again = this.state.loop !== undefined && position < this.last
    this.last = position
    if (!again) return
    this.loops++
    const tempo = tempoAfter(this.state.tempo, this.loops, this.state.ladder)
    if (tempo !== this.state.tempo) this.set({ tempo })
  }

  private ended(): void {
    if (this.state.playing) this.update({ playing: false })
    this.followers.forEach((f) => f(undefined))
  }

  private send(message: ToStrings): void {
    this.node?.port.postMessage(message)
  }

  private update(change: Partial<PlayerState>): void {
    this.state = { ...this.state, ...change }
    this.listeners.forEach((l) => l())
  }
}

export const player = new Player()
