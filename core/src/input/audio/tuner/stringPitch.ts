import { offPeak } from '../peaks.ts'
import { periodOf, transformed } from '../period.ts'

/** The pitch of one sounding string. */
export interface StringPitch {
  /** The frequency of its first partial. */
  readonly hertz: number
  /** How nearly the sound repeats itself after a period: 1 for a pure tone, about 0 for noise. */
  readonly clarity: number
}

/** Samples that are listened to at once. At 48 kHz they last a third of a second: 28 periods of a low E. */
export const LISTENED = 16_384

/** Pitches of strings that can be tuned, in hertz: a bass string let far down, the highest of a mandolin drawn up. */
const LOWEST = 50
const HIGHEST = 1_000

/** Root mean square under which nothing is heard. */
const SILENT = 0.0015

/** Under this clarity there is no string. */
const LEAST_CLARITY = 0.7

/** Partials that are looked at, and the highest frequency at which one is. */
const PARTIALS = 10
const HIGHEST_PARTIAL = 6_000

/** A partial lies within this share of where it would be without stiffness, and is no weaker than this share of the strongest. */
const NEAR = 0.02
const WEAK = 0.02

/** Stiffness of a string (inharmonicity) at most: f(n) = n f √(1 + B n²). Fletcher and Rossing, "The Physics of Musical Instruments"; from memory. */
const STIFFEST = 0.002

/** Spectra are computed on this many times the samples, so that a peak has neighbours. */
const PADDING = 4

/**
 * The pitch of a plucked string, well within a cent where it sounds alone: the period by the normalised square difference
 * (P. McLeod and G. Wyvill, "A smarter way to find pitch", 2005), then the places of its partials in the spectrum, to which the law of a stiff
 * string is fitted.
 * @param samples mono, −1 to 1; `LISTENED` of them
 * @param rate samples a second
 * @returns undefined for silence, noise and anything that is no single string
 */
export function stringPitch(samples: Float32Array, rate: number): StringPitch | undefined {
  let energy = 0
  for (const x of samples) energy += x * x
  if (samples.length < LISTENED / 2 || Math.sqrt(energy / samples.length) < SILENT) return undefined
  const period = periodOf(samples, rate, { low: LOWEST, high: HIGHEST })
  if (!period || period.clarity < LEAST_CLARITY) return undefined
  return { hertz: byPartials(samples, rate, rate / period.samples), clarity: period.clarity }
}

/** A partial as it is found: its number, its frequency over it, and how much it says of the pitch. */
interface Partial {
  readonly n: number
  readonly ratio: number
  readonly weight: number
}

/** The first partial of a stiff string whose partials lie where the spectrum has them. */
function byPartials(samples: Float32Array, rate: number, near: number): number {
  const n = samples.length
  const spectrum = transformed(
    samples.map((x, i) => x * (0.5 - 0.5 * Math.cos((2 * Math.PI * (i + 0.5)) / n))),
    2 ** Math.ceil(Math.log2(n)) * PADDING,
  )
  const bins = spectrum.length / 2
  const bin = rate / bins
  const level = (k: number) => Math.log(Math.hypot(spectrum[2 * k]!, spectrum[2 * k + 1]!) + 1e-12)
  const found: { n: number; hertz: number; strength: number }[] = []
  for (
    let number = 1;
    number <= PARTIALS && number * near <= Math.min(HIGHEST_PARTIAL, rate / 2.2);
    number++
  ) {
    const from = Math.floor((number * near * (1 - NEAR)) / bin)
    const to = Math.ceil((number * near * (1 + NEAR)) / bin)
    let peak = from
    for (let k = from; k <= to; k++) if (level(k) > level(peak)) peak = k
    if (peak === from || peak === to) continue
    found.push({
      n: number,
      hertz: (peak + offPeak(level(peak - 1), level(peak), level(peak + 1))) * bin,
      strength: Math.exp(level(peak)),
    })
  }
  const strongest = Math.max(0, ...found.map((p) => p.strength))
  const partials = found
    .filter((p) => p.strength >= WEAK * strongest)
    .map((p): Partial => ({ n: p.n, ratio: p.hertz / p.n, weight: (p.strength * p.n) ** 2 }))
  if (partials.length === 0) return near
  return firstPartial(partials)
}

/** f(n) / n = f (1 + B n² / 2) by least squares, the stiffness within what strings have; then f(1). */
function firstPartial(partials: readonly Partial[]): number {
  let [w, x, y, xx, xy] = [0, 0, 0, 0, 0]
  for (const { n, ratio, weight } of partials) {
    const square = n * n
    w += weight
    x += weight * square
    y += weight * ratio
    xx += weight * square * square
    xy += weight * square * ratio
  }
  const spread = w * xx - x * x
  const mean = y / w
  const slope = partials.length < 3 || spread <= 0 ? 0 : (w * xy - x * y) / spread
  const rise = Math.min(Math.max(0, slope), (STIFFEST / 2) * mean)
  return mean - (rise * x) / w + rise
}
