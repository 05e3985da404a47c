import { COUNTED_TO, countedAloud } from './countingVoice.ts'
import { PluckedString } from './pluckedString.ts'
import { Sequencer, type SoundEvent } from './sequencer.ts'

/** How hard a finger that comes down, leaves or slides strikes the string, against a pluck. No source. */
const KICK = { hammer: 0.35, pull: 0.45, slide: 0.12, bend: 0, release: 0 } as const

/** Seconds until a string under the palm, or under a lifted finger, has died; and how dull the two sound (hertz). */
const DAMPED_S = { palm: 0.45, muted: 0.05 } as const
const MUFFLED_HZ = 900

/** Cut-off of what touches the string, in hertz, and where it is plucked, as a share of it from the bridge. No source. */
const TOUCH_HZ = { flesh: 1200, nail: 2800, pick: 6000 } as const
const PLUCKED_AT = { bridge: 0.06, hole: 0.17, neck: 0.36 } as const

/** Cut-off of a pluck in hertz: of what it is said to be touched with, else of thumb and fingers. */
function cutOff({ damping, touch, role }: Extract<SoundEvent, { kind: 'pluck' }>): number {
  if (damping) return MUFFLED_HZ
  if (touch) return TOUCH_HZ[touch]
  return role === 'bass' ? 1500 : 2600
}

/** Six strings, a metronome, a voice that counts, and their sequencer: fills blocks of samples. Runs in the audio thread and offline alike. */
export class InstrumentVoice {
  readonly sequencer: Sequencer
  private readonly sampleRate: number
  private readonly strings: readonly PluckedString[]
  private click = { left: 0, hertz: 1000, gain: 1 }
  private readonly words = new Map<number, Float32Array>()
  private spoken: { readonly word: Float32Array; at: number; readonly gain: number } | undefined

  constructor(sampleRate: number, strings = 6) {
    this.sampleRate = sampleRate
    this.sequencer = new Sequencer(sampleRate)
    this.strings = Array.from({ length: strings }, () => new PluckedString(sampleRate))
  }

  /** Sounds one note now, for a place that was clicked. */
  pluck(string: number, hertz: number): void {
    this.strings[string - 1]?.pluck(hertz, 0.8)
  }

  silence(): void {
    for (const s of this.strings) s.damp()
  }

  /** Writes the next block. */
  render(out: Float32Array): void {
    out.fill(0)
    const events = this.sequencer.advance(out.length)
    let from = 0
    for (const event of events) {
      const frame = Math.min(event.frame, out.length - 1)
      this.renderSpan(out, from, frame)
      from = Math.max(from, frame)
      if (event.kind === 'click') this.clickNow(event.strong, event.gain)
      else if (event.kind === 'count') this.count(event.number, event.gain)
      else if (event.kind === 'stop') this.strings[event.string - 1]?.damp()
      else if (event.arrival)
        this.strings[event.string - 1]?.arrive(event.hertz, KICK[event.arrival] * event.velocity, event.glide)
      else
        this.strings[event.string - 1]?.pluck(
          event.hertz,
          event.velocity,
          cutOff(event),
          event.damping ? DAMPED_S[event.damping] : undefined,
          event.pluckAt ? PLUCKED_AT[event.pluckAt] : undefined,
        )
      if (event.kind === 'pluck') this.strings[event.string - 1]?.tremble(event.vibrato === true)
    }
    this.renderSpan(out, from, out.length)
    for (let i = 0; i < out.length; i++) out[i] = Math.tanh(out[i]! * 0.9)
  }

  private clickNow(strong: boolean, gain: number): void {
    this.click = { left: Math.round(this.sampleRate * 0.03), hertz: strong ? 1568 : 1175, gain }
  }

  /** Counts a beat aloud; one beyond the numbers that are spoken clicks. */
  private count(number: number, gain: number): void {
    if (number > COUNTED_TO) return this.clickNow(number === 1, gain)
    const word = this.words.get(number) ?? countedAloud(number, this.sampleRate)
    this.words.set(number, word)
    this.spoken = { word, at: 0, gain }
  }

  private renderSpan(out: Float32Array, from: number, to: number): void {
    if (to <= from) return
    for (const s of this.strings) s.render(out, from, to)
    for (let i = from; i < to && this.click.left > 0; i++, this.click.left--) {
      const t = this.click.left / this.sampleRate
      out[i] =
        out[i]! +
        this.click.gain *
          0.35 *
          Math.sin(2 * Math.PI * this.click.hertz * t) *
          (this.click.left / (this.sampleRate * 0.03))
    }
    const { spoken } = this
    for (let i = from; spoken && i < to && spoken.at < spoken.word.length; i++)
      out[i] = out[i]! + spoken.gain * spoken.word[spoken.at++]!
  }
}
