import FFT from 'fft.js'
import { offPeak } from '../peaks.ts'

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

/** A period is the first repetition that is nearly as good as the best one: later ones are octaves below. */
const NEARLY = 0.9

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
  const period = periodOf(samples, rate)
  if (!period || period.clarity < LEAST_CLARITY) return undefined
  return { hertz: byPartials(samples, rate, rate / period.samples), clarity: period.clarity }
}

/** Transforms by their size: their tables are dear to make, and a tuner asks for the same ones ten times a second. */
const transforms = new Map<number, FFT>()

function transformOf(size: number): FFT {
  const known = transforms.get(size) ?? new FFT(size)
  transforms.set(size, known)
  return known
}

/** The spectrum of samples, with silence up to a size; real and imaginary parts in turn. */
function transformed(samples: ArrayLike<number>, size: number): Float64Array {
  const fft = transformOf(size)
  const input = new Float64Array(size)
  input.set(samples)
  const spectrum = new Float64Array(2 * size)
  fft.realTransform(spectrum, input)
  fft.completeSpectrum(spectrum)
  return spectrum
}

/** The period in samples, between them, with how well the sound repeats itself. */
function periodOf(samples: Float32Array, rate: number): { samples: number; clarity: number } | undefined {
  const n = samples.length
  const size = 2 ** Math.ceil(Math.log2(2 * n))
  const spectrum = transformed(samples, size)
  const power = new Float64Array(2 * size)
  for (let i = 0; i < spectrum.length; i += 2) power[i] = spectrum[i]! ** 2 + spectrum[i + 1]! ** 2
  const correlation = new Float64Array(2 * size)
  transformOf(size).inverseTransform(correlation, power)
  const longest = Math.min(Math.floor(rate / LOWEST), n - 2)
  const shortest = Math.floor(rate / HIGHEST)
  const alike = new Float64Array(longest + 2)
  let squares = 2 * correlation[0]!
  for (let lag = 0; lag < alike.length; lag++) {
    alike[lag] = squares > 0 ? (2 * correlation[2 * lag]!) / squares : 0
    squares -= samples[lag]! ** 2 + samples[n - 1 - lag]! ** 2
  }
  const peaks: number[] = []
  for (let lag = shortest; lag <= longest; lag++)
    if (alike[lag]! > 0 && alike[lag]! > alike[lag - 1]! && alike[lag]! >= alike[lag + 1]!) peaks.push(lag)
  const best = Math.max(0, ...peaks.map((p) => alike[p]!))
  const first = peaks.find((p) => alike[p]! >= NEARLY * best)
  if (first === undefined) return undefined
  return {
    samples: first + offPeak(alike[first - 1]!, alike[first]!, alike[first + 1]!),
    clarity: alike[first]!,
  }
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
