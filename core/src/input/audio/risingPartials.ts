import FFT from 'fft.js'

/** Partials of a note that are looked at, and the highest frequency at which one is (hertz). */
const PARTIALS = 10
const HIGHEST_PARTIAL = 5_000

/** How far from its place a partial may lie: cents to both sides. */
const NEAR_CENTS = 30

/** A string is stiff: its upper partials lie a little high (Fletcher and Rossing, f(n) = n f √(1 + B n²); from memory). */
const STIFFNESS = 1e-4

/** A rise counts from so many times the noise on, and not more than so much. No source: set on takes of other strings. */
const NOISE_STEP = 4
const MOST_EVIDENCE = 4

/** Two partials nearer than this share of a window's resolution are one peak. */
const ONE_PEAK = 1

/** What a partial may be over its neighbours and still belong to another note. */
const UNEVEN = 2

/** Share of its weight that a partial has where it falls on one of another note. */
const SHARED = 0.4

/** From so many hertz on a string's first partial is there, and has at least so much evidence. */
const HAS_FIRST_HZ = 160
const FIRST_AT_LEAST = 0.2

/** Spectra just before and just after a moment, as magnitudes by bins. */
export interface Rise {
  readonly before: Float64Array
  readonly after: Float64Array
  /** The noise around each bin. */
  readonly noise: Float64Array
  /** Hertz from one bin to the next, and the least distance at which two partials are told apart. */
  readonly bin: number
  readonly resolution: number
}

/** Bins of a spectrum, over which the noise is looked for around each of them. */
const SIZE = 16_384
const AROUND = 160

let transform: FFT | undefined

/**
 * What begins to sound at a moment.
 * @param at sample at which it begins
 * @param length samples that are looked at before it and after it
 */
export function riseAt(samples: Float32Array, rate: number, at: number, length: number): Rise {
  const window = Math.min(length, SIZE)
  const guard = Math.round(0.004 * rate)
  const before = magnitudes(samples, at - guard - window, window)
  const after = magnitudes(samples, at + guard, window)
  return { before, after, noise: floorOf(after), bin: rate / SIZE, resolution: (2 * rate) / window }
}

function magnitudes(samples: Float32Array, from: number, length: number): Float64Array {
  transform ??= new FFT(SIZE)
  const input = new Float64Array(SIZE)
  for (let i = 0; i < length; i++) {
    const x = samples[from + i] ?? 0
    input[i] = x * (0.5 - 0.5 * Math.cos((2 * Math.PI * (i + 0.5)) / length))
  }
  const spectrum = new Float64Array(2 * SIZE)
  transform.realTransform(spectrum, input)
  const levels = new Float64Array(SIZE / 2)
  for (let k = 0; k < levels.length; k++) levels[k] = Math.hypot(spectrum[2 * k]!, spectrum[2 * k + 1]!)
  return levels
}

/** The noise around each bin: a low quantile of its neighbours, so that partials do not raise it. */
function floorOf(levels: Float64Array): Float64Array {
  const floor = new Float64Array(levels.length)
  const loudest = levels.reduce((most, x) => Math.max(most, x), 0)
  for (let from = 0; from < levels.length; from += AROUND) {
    const near = levels.slice(Math.max(0, from - AROUND), from + 2 * AROUND).sort()
    // A third of the way up, Rayleigh's distribution has 0.9 of its scale; 60 dB under the loudest nothing is heard.
    const low = Math.max((near[Math.floor(near.length * 0.33)] ?? 0) / 0.9, loudest * 1e-3, 1e-9)
    floor.fill(low, from, from + AROUND)
  }
  return floor
}

/** Where a note's partials lie, in hertz. */
export function partialsOf(hertz: number): readonly number[] {
  const all: number[] = []
  for (let n = 1; n <= PARTIALS; n++) {
    const own = n * hertz * Math.sqrt((1 + STIFFNESS * n * n) / (1 + STIFFNESS))
    if (own > HIGHEST_PARTIAL && n > 2) break
    all.push(own)
  }
  return all
}

/** The level near a frequency. */
function levelNear(levels: Float64Array, bin: number, hertz: number): number {
  const wide = 2 ** (NEAR_CENTS / 1200)
  let most = 0
  const last = Math.min(levels.length - 1, Math.ceil((hertz * wide) / bin))
  for (let k = Math.max(1, Math.floor(hertz / wide / bin)); k <= last; k++) most = Math.max(most, levels[k]!)
  return most
}

/** The level of a peak near a frequency; what is merely the skirt of a stronger neighbour is none. */
function peakNear(levels: Float64Array, bin: number, hertz: number): number {
  const wide = 2 ** (NEAR_CENTS / 1200)
  const first = Math.max(1, Math.floor(hertz / wide / bin))
  const last = Math.min(levels.length - 2, Math.ceil((hertz * wide) / bin))
  let peak = first
  for (let k = first; k <= last; k++) if (levels[k]! > levels[peak]!) peak = k
  const isSkirt =
    (peak === first && levels[peak - 1]! > levels[peak]!) ||
    (peak === last && levels[peak + 1]! > levels[peak]!)
  return isSkirt ? 0 : levels[peak]!
}

/** How much each partial of a note that begins alone rises, 0 to 4. */
export const risesOf = (rise: Rise, hertz: number): readonly number[] =>
  partialsOf(hertz).map((own) =>
    evidence(rise, own, peakNear(rise.after, rise.bin, own), levelNear(rise.before, rise.bin, own)),
  )

/** What a level says at a frequency over what was there before. */
function evidence({ noise, bin }: Rise, hertz: number, level: number, base: number): number {
  const around = noise[Math.min(noise.length - 1, Math.round(hertz / bin))]!
  return Math.min(MOST_EVIDENCE, Math.log2(1 + Math.max(0, level - base) / around / NOISE_STEP))
}

/** How much of a note rises, as the mean over its partials, 0 to 4. */
export interface NoteEvidence {
  readonly score: number
  /** Over the partials alone that fall on none of another note. */
  readonly ownScore: number
  /** True where its first partial, which such a note has, does not rise. */
  readonly lacksFirst: boolean
}

/**
 * How well a note that begins explains what rises. A partial that falls on one of another note counts for what it has over what that note's
 * other partials lead one to expect.
 * @param others hertz of the notes that begin with it
 */
export function evidenceOf(rise: Rise, hertz: number, others: readonly number[]): NoteEvidence {
  const elsewhere = others.map(partialsOf)
  const partials = partialsOf(hertz).map((own, i) => {
    const level = peakNear(rise.after, rise.bin, own)
    let base = levelNear(rise.before, rise.bin, own)
    let shared = false
    for (const list of elsewhere) {
      const m = list.findIndex((p) => Math.abs(p - own) < ONE_PEAK * rise.resolution * 0.5)
      if (m < 0) continue
      shared = true
      const beside = [list[m - 1], list[m + 1]].flatMap((p) =>
        p === undefined ? [] : [levelNear(rise.after, rise.bin, p)],
      )
      const usual = Math.exp(beside.reduce((sum, x) => sum + Math.log(x + 1e-12), 0) / beside.length)
      base = Math.max(base, UNEVEN * usual)
    }
    // Where a semitone is less than a peak is wide, a partial says little of which note it is.
    const tellsApart = Math.min(1, (own * 0.0595) / (rise.resolution * 0.5))
    return {
      evidence: evidence(rise, own, level, base),
      shared,
      weight: (tellsApart * (shared ? SHARED : 1)) / Math.sqrt(i + 1),
    }
  })
  // Over a low string's, a note has its first partial.
  const first = partials[0]!
  const lacksFirst = hertz > HAS_FIRST_HZ && first.evidence < FIRST_AT_LEAST
  return { score: meanOf(partials), ownScore: meanOf(partials.filter((p) => !p.shared)), lacksFirst }
}

/** How much of a note is there after a moment, whether it rises or has sounded before. */
export const presenceOf = (rise: Rise, hertz: number): number =>
  evidenceOf({ ...rise, before: new Float64Array(rise.before.length) }, hertz, []).score

function meanOf(partials: readonly { readonly evidence: number; readonly weight: number }[]): number {
  const weight = partials.reduce((sum, p) => sum + p.weight, 0)
  return partials.reduce((sum, p) => sum + p.weight * p.evidence, 0) / Math.max(1e-9, weight)
}
