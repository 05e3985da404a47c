import FFT from 'fft.js'

/** Seconds from one look to the next, and samples of a look at 48 kHz (a fiftieth of a second). */
export const LOOK_S = 0.005
const WINDOW_S = 0.021

/** Looks between two that are compared. */
const APART = 2

/** The band in which plucks begin, in hertz. */
const BAND = { low: 70, high: 7_000 }

/**
 * How strongly something begins, look by look: the sum of what rises in the logarithm of the spectrum (S. Dixon, "Onset detection
 * revisited", 2006: spectral flux), of which the usual of its neighbourhood is taken off. Yields the share that is done.
 */
export function* onsetStrength(samples: Float32Array, rate: number): Generator<number, Float64Array> {
  const hop = LOOK_S * rate
  const size = 2 ** Math.round(Math.log2(WINDOW_S * rate))
  const fft = new FFT(size)
  const input = new Float64Array(size)
  const output = new Float64Array(2 * size)
  const looks = Math.max(0, Math.floor(samples.length / hop))
  const [low, high] = [
    Math.floor((BAND.low * size) / rate),
    Math.min(size / 2, Math.ceil((BAND.high * size) / rate)),
  ]
  const quiet = quietest(samples, rate, size)
  const spectra: Float64Array[] = []
  const strength = new Float64Array(looks)
  for (let look = 0; look < looks; look++) {
    const centre = Math.round(look * hop)
    for (let i = 0; i < size; i++) {
      const x = samples[centre - size / 2 + i] ?? 0
      input[i] = x * (0.5 - 0.5 * Math.cos((2 * Math.PI * (i + 0.5)) / size))
    }
    fft.realTransform(output, input)
    const levels = new Float64Array(high - low)
    for (let k = low; k < high; k++)
      levels[k - low] = Math.log(1 + Math.hypot(output[2 * k]!, output[2 * k + 1]!) / quiet)
    spectra.push(levels)
    // Before the first look there was silence.
    const earlier = spectra[look - APART]
    let sum = 0
    for (let k = 0; k < levels.length; k++) sum += Math.max(0, levels[k]! - (earlier?.[k] ?? 0))
    strength[Math.max(0, look - APART / 2)] = sum / levels.length
    if (spectra.length > APART + 1) delete spectra[look - APART - 1]
    if (look % 200 === 0) yield look / looks
  }
  return overItsNeighbours(strength)
}

/** The magnitude that counts as nothing: what noise has in a bin, but no less than 60 dB under the loudest sample. */
function quietest(samples: Float32Array, rate: number, size: number): number {
  const block = Math.round(0.05 * rate)
  const levels: number[] = []
  let peak = 0
  for (let from = 0; from + block <= samples.length; from += block) {
    let energy = 0
    for (let i = from; i < from + block; i++) {
      energy += samples[i]! ** 2
      peak = Math.max(peak, Math.abs(samples[i]!))
    }
    levels.push(Math.sqrt(energy / block))
  }
  levels.sort((a, b) => a - b)
  const low = levels[Math.floor(levels.length * 0.1)] ?? 0
  // White noise of a level has the square root of (size × 3/8) times it in a bin under this window.
  return Math.max(low, peak * 1e-3, 1e-7) * Math.sqrt((size * 3) / 8)
}

/** Half a second around a look: what is usual there is no beginning. */
const NEIGHBOURS_S = 0.25

function overItsNeighbours(strength: Float64Array): Float64Array {
  const wide = Math.round(NEIGHBOURS_S / LOOK_S)
  return strength.map((x, i) => {
    const near = strength.slice(Math.max(0, i - wide), i + wide + 1).sort()
    return Math.max(0, x - (near[near.length >> 1] ?? 0))
  })
}
