import type { ExpectedNote } from '../../src/input/audio/index.ts'
import type { Mistake } from '../../src/output/sound/index.ts'
import { additiveString, noise } from './otherStrings.ts'

export interface TakeRoom {
  readonly random: () => number
  /** Decibels of the sound over white noise. */
  readonly overNoise: number
  /** Seconds in which the room's echo dies by 60 dB; 0 for none. */
  readonly echo: number
  /** Cents that the whole instrument lies off. */
  readonly cents: number
  /** Seconds that everything comes late. */
  readonly latency: number
}

/** Seconds of a player's unevenness, to both sides. */
const UNEVEN_S = 0.018

/**
 * A take of expected notes on strings that have nothing in common with the app's, with slips, an echo and noise: strings ring until they
 * are struck again or the hand lets them go.
 */
export function takeOf(
  expected: readonly ExpectedNote[],
  slips: ReadonlyMap<number, Mistake>,
  rate: number,
  { random, overNoise, echo, cents, latency }: TakeRoom,
): Float32Array {
  const end = Math.max(...expected.map((n) => n.seconds)) + 1.2 + latency
  const dry = new Float32Array(Math.ceil(end * rate))
  const moments = new Map<number, number>()
  expected.forEach((n, i) => {
    const slip = slips.get(i)
    if (slip?.kind === 'missed') return
    // Notes of one moment are struck with one motion.
    const key = Math.round(n.seconds * 40)
    const uneven = moments.get(key) ?? UNEVEN_S * (2 * random() - 1)
    moments.set(key, uneven)
    const at = n.seconds + latency + uneven + 0.004 * random() + (slip?.kind === 'late' ? slip.seconds : 0)
    const again = expected.find((o, k) => k !== i && o.string === n.string && o.seconds > n.seconds)
    const rings = Math.min(n.rings, (again?.seconds ?? Infinity) - n.seconds)
    const length = Math.min(dry.length, Math.ceil((at + rings + 0.08) * rate)) - Math.round(at * rate)
    if (length <= 0) return
    const by = slip?.kind === 'fret' ? slip.by : 0
    const hertz = n.hertz * 2 ** ((by * 100 + cents + 6 * (2 * random() - 1)) / 1200)
    const tone = additiveString(hertz, rate, length, { random, stiffness: random() * 3e-4, after: 0.02 })
    const loud = (n.isStruck ? 0.7 : 0.5) + 0.3 * random()
    const from = Math.max(0, Math.round(at * rate))
    const dies = Math.round(rings * rate)
    for (let k = 0; k < tone.length; k++) {
      const attack = Math.min(1, k / (0.002 * rate))
      const released = k > dies ? Math.exp(-(k - dies) / (0.02 * rate)) : 1
      dry[from + k] = dry[from + k]! + tone[k]! * loud * attack * released
    }
  })
  return noise(echo > 0 ? withEcho(dry, rate, echo, random) : dry, overNoise, random)
}

/** A room: four combs after M. R. Schroeder ("Natural sounding artificial reverberation", 1962), mixed a quarter under the sound. */
function withEcho(dry: Float32Array, rate: number, seconds: number, random: () => number): Float32Array {
  const out = dry.slice()
  for (const delay of [0.0297, 0.0371, 0.0411, 0.0437]) {
    const lag = Math.round(delay * (0.9 + 0.2 * random()) * rate)
    const gain = 10 ** ((-3 * delay) / seconds)
    const comb = dry.slice()
    for (let i = lag; i < comb.length; i++) comb[i] = comb[i]! + gain * comb[i - lag]!
    for (let i = lag; i < out.length; i++) out[i] = out[i]! + 0.06 * comb[i - lag]!
  }
  return out
}
