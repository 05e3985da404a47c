import FFT from 'fft.js'
import { offPeak } from './peaks.ts'

/** A peak of a spectrum: where it lies between the bins, and how strong it is. */
export interface Peak {
  readonly hertz: number
  readonly strength: number
}

/** Samples of one window, and from one to the next. At 22.05 kHz a window lasts 0.37 s: long enough for cents. */
const WINDOW = 8192
const HOP = 4096

/** The band in which strings and voices have their strong partials. */
const BAND = { low: 80, high: 2000 }

/** Peaks in a window, the strongest. */
const MOST_PEAKS = 24

/** Windows quieter than this share of the loudest are left out. */
const QUIET = 0.02

/**
 * The spectral peaks of each window of a recording, by a Hann window and parabolic interpolation of the logarithm.
 * Yields after each window.
 * @param samples mono, −1 to 1
 * @param rate samples a second
 */
export function* spectralPeaks(samples: Float32Array, rate: number): Generator<number, Peak[][]> {
  const fft = new FFT(WINDOW)
  const hann = Float64Array.from(
    { length: WINDOW },
    (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / WINDOW),
  )
  const input = new Array<number>(WINDOW)
  const output = fft.createComplexArray() as number[]
  const level = new Float64Array(WINDOW / 2)
  const windows: { peaks: Peak[]; energy: number }[] = []
  for (let from = 0; from + WINDOW <= samples.length; from += HOP) {
    let energy = 0
    for (let i = 0; i < WINDOW; i++) {
      const x = samples[from + i]!
      energy += x * x
      input[i] = x * hann[i]!
    }
    fft.realTransform(output, input)
    for (let k = 0; k < WINDOW / 2; k++) level[k] = Math.hypot(output[2 * k]!, output[2 * k + 1]!)
    windows.push({ peaks: peaksOf(level, rate), energy })
    yield from / samples.length
  }
  const loudest = Math.max(0, ...windows.map((w) => w.energy))
  return windows.filter((w) => w.energy > QUIET * loudest && w.energy > 0).map((w) => w.peaks)
}

function peaksOf(level: Float64Array, rate: number): Peak[] {
  const bin = rate / WINDOW
  const [from, to] = [Math.ceil(BAND.low / bin), Math.floor(BAND.high / bin)]
  let strongest = 0
  for (let k = from; k < to; k++) strongest = Math.max(strongest, level[k]!)
  const peaks: Peak[] = []
  for (let k = from; k < to; k++) {
    const here = level[k]!
    if (here < 0.01 * strongest || here <= level[k - 1]! || here < level[k + 1]!) continue
    const [a, b, c] = [Math.log(level[k - 1]!), Math.log(here), Math.log(level[k + 1]!)]
    const off = offPeak(a, b, c)
    if (Number.isFinite(off)) peaks.push({ hertz: (k + off) * bin, strength: here })
  }
  return peaks.sort((x, y) => y.strength - x.strength).slice(0, MOST_PEAKS)
}
