import FFT from 'fft.js'
import { offPeak } from './peaks.ts'

/** A period is the first repetition that is nearly as good as the best one: later ones are octaves below. */
const NEARLY = 0.9

/** Transforms by their size: their tables are dear to make, and a tuner asks for the same ones ten times a second. */
const transforms = new Map<number, FFT>()

function transformOf(size: number): FFT {
  const known = transforms.get(size) ?? new FFT(size)
  transforms.set(size, known)
  return known
}

/** The spectrum of samples, with silence up to a size; real and imaginary parts in turn. */
export function transformed(samples: ArrayLike<number>, size: number): Float64Array {
  const fft = transformOf(size)
  const input = new Float64Array(size)
  input.set(samples)
  const spectrum = new Float64Array(2 * size)
  fft.realTransform(spectrum, input)
  fft.completeSpectrum(spectrum)
  return spectrum
}

/**
 * The period in samples, between them, with how well the sound repeats itself: the normalised square difference (P. McLeod and G. Wyvill,
 * "A smarter way to find pitch", 2005).
 * @param band pitches that are looked for, in hertz
 */
export function periodOf(
  samples: Float32Array,
  rate: number,
  band: { readonly low: number; readonly high: number },
): { readonly samples: number; readonly clarity: number } | undefined {
  const n = samples.length
  const size = 2 ** Math.ceil(Math.log2(2 * n))
  const spectrum = transformed(samples, size)
  const power = new Float64Array(2 * size)
  for (let i = 0; i < spectrum.length; i += 2) power[i] = spectrum[i]! ** 2 + spectrum[i + 1]! ** 2
  const correlation = new Float64Array(2 * size)
  transformOf(size).inverseTransform(correlation, power)
  const longest = Math.min(Math.floor(rate / band.low), n - 2)
  const shortest = Math.floor(rate / band.high)
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
