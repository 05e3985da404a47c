import { present } from '../../invariant.ts'
import { bpmAt } from '../../document/form/tempoMap.ts'
import { QUARTER, type Ticks } from '../../music/time/ticks.ts'
import { gainOf, type Balance } from './balance.ts'
import type { Performance, ScoreNote } from './performance.ts'

/** What happens inside a block of samples. `frame` counts from the block's start. */
export type SoundEvent =
  | {
      readonly frame: number
      readonly kind: 'pluck'
      readonly string: number
      readonly hertz: number
      readonly role: string
      readonly velocity: number
      readonly arrival?: ScoreNote['arrival']
      readonly glide?: number
      readonly vibrato?: true
      readonly damping?: 'palm' | 'muted'
      readonly touch?: ScoreNote['touch']
      readonly pluckAt?: ScoreNote['pluckAt']
    }
  | { readonly frame: number; readonly kind: 'stop'; readonly string: number }
  | {
      readonly frame: number
      readonly kind: 'click'
      readonly strong: boolean
      /** Share of its loudness, 0 to 1. */
      readonly gain: number
    }
  /** A beat that is counted aloud. */
  | { readonly frame: number; readonly kind: 'count'; readonly number: number; readonly gain: number }

export interface PlaySettings {
  /** Share of the written tempo, 0.3 to 1.5. */
  readonly tempo: number
  /** How loud each voice is, with the metronome and the counting; absent: all notes are full, nothing beside them. */
  readonly balance?: Balance
  /** Played ticks to repeat; undefined plays to the end. */
  readonly loop?: { readonly from: Ticks; readonly to: Ticks }
}

const PLAIN: PlaySettings = { tempo: 1 }

/**
 * Turns a score into timed events, block by block, inside the audio thread. Time is kept in ticks and advanced by whole
 * blocks of frames, so tempo, loop and balance can change at any moment without a note being lost or late.
 */
export class Sequencer {
  private readonly sampleRate: number
  private score: Performance | undefined
  private settings: PlaySettings = PLAIN
  private tick = 0
  private nextNote = 0
  private nextClick = 0
  private countIn: { left: number; frames: number } | undefined
  private stops: { at: Ticks; string: number }[] = []
  playing = false

  constructor(sampleRate: number) {
    this.sampleRate = sampleRate
  }

  load(score: Performance): void {
    this.score = score
    this.playing = false
    this.stops = []
  }

  set(settings: PlaySettings): void {
    this.settings = settings
    if (settings.loop && this.playing && (this.tick < settings.loop.from || this.tick >= settings.loop.to))
      this.seek(settings.loop.from)
  }

  /** Starts at a played tick, after a count-in where asked. */
  play(from: Ticks, countIn: boolean): void {
    if (!this.score) return
    this.seek(from)
    this.playing = true
    const beats = this.score.countIn
    this.countIn = countIn ? { left: beats, frames: 0 } : undefined
  }

  stop(): void {
    this.playing = false
    this.stops = []
  }

  /** Played position in ticks. */
  get position(): Ticks {
    return this.tick
  }

  get countingIn(): boolean {
    return this.countIn !== undefined
  }

  private seek(to: Ticks): void {
    const { notes, clicks } = present(this.score)
    this.tick = to
    this.nextNote = notes.findIndex((n) => n.at >= to - 0.5)
    if (this.nextNote < 0) this.nextNote = notes.length
    this.nextClick = clicks.findIndex((c) => c.at >= to - 0.5)
    if (this.nextClick < 0) this.nextClick = clicks.length
  }

  private ticksPerFrame(): number {
    return this.rateAt(this.tick)
  }

  private rateAt(tick: Ticks): number {
    const bpm = bpmAt(present(this.score).tempos, tick + 0.5)
    return (QUARTER * bpm * this.settings.tempo) / 60 / this.sampleRate
  }

  /** Frames of the beat that begins here: a beat that swings has two tempos. */
  private beatFrames(): number {
    const { beat, tempos } = present(this.score)
    const end = this.tick + beat
    let frames = 0
    for (let at = this.tick; at < end;) {
      const next = Math.min(end, tempos.find((t) => t.at > at + 0.5)?.at ?? end)
      frames += (next - at) / this.rateAt(at)
      at = next
    }
    return frames
  }

  /** Events of the next `frames` samples, in order of time. */
  advance(frames: number): SoundEvent[] {
    const events: SoundEvent[] = []
    if (!this.playing || !this.score) return events
    let frame = 0
    while (frame < frames && this.playing) {
      const rate = this.ticksPerFrame()
      if (this.countIn) {
        frame += this.countFrames(frame, frames, events)
        continue
      }
      const end = Math.min(this.settings.loop?.to ?? this.score.length, this.score.length)
      const until = Math.min(this.tick + (frames - frame) * rate, end, this.nextTempo())
      this.emit(until, frame, rate, events)
      frame += Math.max(1, Math.round((until - this.tick) / rate))
      this.tick = until
      if (until >= end - 1e-6) this.wrap(frame, frames, events)
    }
    return events.sort((a, b) => a.frame - b.frame)
  }

  private wrap(frame: number, frames: number, events: SoundEvent[]): void {
    const { loop } = this.settings
    for (const s of this.stops)
      events.push({ frame: Math.min(frame, frames - 1), kind: 'stop', string: s.string })
    this.stops = []
    if (loop) this.seek(loop.from)
    else this.playing = false
  }

  private nextTempo(): Ticks {
    return present(this.score).tempos.find((t) => t.at > this.tick + 0.5)?.at ?? Infinity
  }

  private countFrames(frame: number, frames: number, events: SoundEvent[]): number {
    const count = present(this.countIn)
    if (count.frames <= 0) {
      if (count.left === 0) {
        this.countIn = undefined
        return 0
      }
      events.push({ frame, kind: 'click', strong: count.left === present(this.score).countIn, gain: 1 })
      count.left--
      count.frames = this.beatFrames()
    }
    const used = Math.min(frames - frame, Math.ceil(count.frames))
    count.frames -= used
    return used
  }

  private emit(until: Ticks, frame: number, rate: number, events: SoundEvent[]): void {
    const { notes, clicks } = present(this.score)
    const at = (tick: Ticks) => frame + Math.max(0, Math.floor((tick - this.tick) / rate))
    this.stops = this.stops.filter((s) => {
      if (s.at >= until) return true
      events.push({ frame: at(s.at), kind: 'stop', string: s.string })
      return false
    })
    for (; this.nextNote < notes.length && notes[this.nextNote]!.at < until; this.nextNote++) {
      const n = notes[this.nextNote]!
      const gain = gainOf(this.settings.balance, n.role)
      if (gain === 0) continue
      this.stops = this.stops.filter((s) => s.string !== n.string)
      const { string, hertz, role, velocity, damping, arrival, glide, vibrato, touch, pluckAt } = n
      events.push({
        frame: at(n.at),
        kind: 'pluck',
        string,
        hertz,
        role,
        velocity: velocity * gain,
        ...(damping ? { damping } : {}),
        ...(arrival ? { arrival, glide: (glide ?? 0) / this.settings.tempo } : {}),
        ...(vibrato ? { vibrato } : {}),
        ...(touch ? { touch } : {}),
        ...(pluckAt ? { pluckAt } : {}),
      })
      this.stops.push({ at: n.until, string: n.string })
    }
    for (; this.nextClick < clicks.length && clicks[this.nextClick]!.at < until; this.nextClick++) {
      const c = clicks[this.nextClick]!
      const { balance } = this.settings
      const click = gainOf(balance, 'metronome')
      if (click > 0) events.push({ frame: at(c.at), kind: 'click', strong: c.strong, gain: click })
      const aloud = gainOf(balance, 'counting')
      if (aloud > 0) events.push({ frame: at(c.at), kind: 'count', number: c.number, gain: aloud })
    }
  }
}
