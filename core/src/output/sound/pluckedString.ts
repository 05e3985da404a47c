/**
 * One plucked string as a digital waveguide: a delay line of the string's length, a one-pole loss filter, and a
 * third-order Lagrange interpolator for the fraction of a sample. The filter's phase delay at the note's pitch is
 * taken off the line, so that the pitch is exact. (K. Karplus and A. Strong 1983; J. O. Smith, "Physical Audio
 * Signal Processing": digital waveguide strings.)
 */
export class PluckedString {
  private readonly sampleRate: number
  private readonly line: Float32Array
  private write = 0
  private whole = 0
  private taps: [number, number, number, number] = [0, 0, 0, 0]
  private gain = 0
  private smooth = 0.25
  private state = 0
  private level = 0
  private damping = 1
  private hertz = 110
  private way: { from: number; to: number; frames: number; done: number } | undefined
  private trembling: { phase: number; hertz: number } | undefined

  /** @param sampleRate in hertz */
  constructor(sampleRate: number) {
    this.sampleRate = sampleRate
    this.line = new Float32Array(nextPowerOfTwo(sampleRate / 20))
  }

  /**
   * Strikes the string.
   * @param hertz pitch
   * @param velocity 0 to 1
   * @param touch cut-off of the plucking touch in hertz: about 1200 flesh, 2500 nail, 6000 pick
   * @param dies seconds until it has died, where something damps it from the start
   * @param place where it is plucked, as a share of the string from the bridge
   */
  pluck(hertz: number, velocity: number, touch = 2500, dies?: number, place = 0.17): void {
    this.way = undefined
    this.trembling = undefined
    this.tune(hertz)
    const period = this.sampleRate / hertz
    const n = Math.round(period)
    const noise = new Float32Array(n)
    const pole = Math.exp((-2 * Math.PI * touch) / this.sampleRate)
    let low = 0
    let mean = 0
    for (let i = 0; i < n; i++) {
      low = (1 - pole) * (Math.random() * 2 - 1) + pole * low
      noise[i] = low
      mean += low / n
    }
    const comb = Math.max(1, Math.round(n * place))
    let energy = 0
    const shaped = noise.map((x, i) => x - mean - (noise[(i - comb + n) % n]! - mean))
    for (const x of shaped) energy += x * x
    const scale = (0.28 * velocity) / Math.sqrt(energy / n + 1e-12)
    const keep = Math.min(0.35, this.level)
    for (let i = 0; i < this.line.length; i++) this.line[i] = this.line[i]! * keep
    const size = this.line.length
    for (let i = 0; i < n; i++) {
      const at = (this.write - n + i + size * 2) % size
      this.line[at] = this.line[at]! + shaped[i]! * scale
    }
    this.damping = dies === undefined ? 1 : decayIn(dies, hertz)
    this.level = 1
  }

  /**
   * Carries a sounding string on at another pitch, as a finger does that comes down, leaves or slides along; a string
   * that does not sound is struck instead.
   * @param kick velocity of what the finger adds, 0 to 1
   * @param glide seconds on the way to the new pitch
   */
  arrive(hertz: number, kick: number, glide = 0): void {
    if (!this.sounding) {
      this.pluck(hertz, kick)
      return
    }
    this.way = { from: this.hertz, to: hertz, frames: Math.round(glide * this.sampleRate), done: 0 }
    if (glide === 0) {
      this.tune(hertz)
      this.way = undefined
    }
    this.damping = 1
    const n = Math.min(Math.round(this.sampleRate / hertz), this.line.length)
    const size = this.line.length
    for (let i = 0; i < n && kick > 0; i++) {
      const at = (this.write - n + i + size) % size
      this.line[at] = this.line[at]! + (Math.random() * 2 - 1) * 0.12 * kick
    }
    this.level = Math.max(this.level, 0.5 * kick)
  }

  /** Starts or ends a slow wavering of the pitch. */
  tremble(on: boolean): void {
    this.trembling = on ? { phase: 0, hertz: this.hertz } : undefined
  }

  /** Stops the string as a lifted finger does: it dies within a fifth of a second. */
  damp(): void {
    this.damping = decayIn(0.2, this.hertz)
  }

  /** True while there is something to hear. */
  get sounding(): boolean {
    return this.level > 1e-4
  }

  /** Adds the next samples to a block. */
  render(out: Float32Array, from: number, to: number): void {
    if (!this.sounding) return
    for (let at = from; at < to; at += PITCH_STEP) {
      const end = Math.min(to, at + PITCH_STEP)
      if (this.way || this.trembling) this.movePitch(end - at)
      else if (at === from) return this.renderSteady(out, from, to)
      this.renderSteady(out, at, end)
    }
  }

  private movePitch(frames: number): void {
    const { way } = this
    if (way) {
      way.done += frames
      const share = Math.min(1, way.done / way.frames)
      this.tune(way.from * (way.to / way.from) ** share)
      if (share < 1) return
      this.way = undefined
      if (this.trembling) this.trembling.hertz = way.to
    } else if (this.trembling) {
      const t = this.trembling
      t.phase += (2 * Math.PI * VIBRATO_HZ * frames) / this.sampleRate
      this.tune(t.hertz * 2 ** ((VIBRATO_CENTS * Math.sin(t.phase)) / 1200))
    }
  }

  private renderSteady(out: Float32Array, from: number, to: number): void {
    const { line } = this
    const mask = line.length - 1
    const [a, b, c, d] = this.taps
    let peak = 0
    for (let i = from; i < to; i++) {
      const at = this.write - this.whole
      const x =
        a * line[(at + 1) & mask]! +
        b * line[at & mask]! +
        c * line[(at - 1) & mask]! +
        d * line[(at - 2) & mask]!
      this.state = (1 - this.smooth) * x + this.smooth * this.state
      const y = this.state * this.gain * this.damping
      line[this.write & mask] = y
      this.write = (this.write + 1) & mask
      out[i] = out[i]! + y
      const size = y < 0 ? -y : y
      if (size > peak) peak = size
    }
    this.level = Math.max(peak, this.level * 0.9)
  }

  private tune(hertz: number): void {
    this.hertz = hertz
    // Higher strings die sooner: 7 s at E2 to 2 s at E5.
    const decay = 7 * (hertz / 82.41) ** -0.6
    this.smooth = 0.28
    const omega = (2 * Math.PI * hertz) / this.sampleRate
    const s = this.smooth
    const magnitude = (1 - s) / Math.hypot(1 - s * Math.cos(omega), s * Math.sin(omega))
    const phaseDelay = Math.atan2(s * Math.sin(omega), 1 - s * Math.cos(omega)) / omega
    this.gain = Math.min(0.99999, 10 ** (-3 / (hertz * decay)) / magnitude)
    const delay = this.sampleRate / hertz - phaseDelay
    this.whole = Math.floor(delay)
    this.taps = lagrange(delay - this.whole)
  }
}

/** Frames between two steps of a moving pitch; rate and depth of a vibrato. No source. */
const PITCH_STEP = 32
const VIBRATO_HZ = 5.2
const VIBRATO_CENTS = 14

/** Gain a period that takes a string down by 60 dB in some seconds. */
const decayIn = (seconds: number, hertz: number) => 10 ** (-3 / (hertz * seconds))

/** Third-order Lagrange weights for samples at −1, 0, 1, 2 around a delay of `x` in [0, 1). */
function lagrange(x: number): [number, number, number, number] {
  return [
    (-x * (x - 1) * (x - 2)) / 6,
    ((x + 1) * (x - 1) * (x - 2)) / 2,
    (-(x + 1) * x * (x - 2)) / 2,
    ((x + 1) * x * (x - 1)) / 6,
  ]
}

function nextPowerOfTwo(n: number): number {
  return 2 ** Math.ceil(Math.log2(n))
}
