import { keyOf, type Key } from '../../music/pitch/key.ts'
import { mod12, plainName } from '../../music/pitch/pitch.ts'
import { spectralPeaks, type Peak } from './spectrum.ts'

/** A key that a recording may be in, with its share of the likeness. */
export interface KeyCandidate {
  readonly key: Key
  readonly likeness: number
}

/** What a recording says of its pitch. */
export interface RecordingPitch {
  /** Cents from A = 440 Hz, −50 to 50; positive is sharp. */
  readonly cents: number
  /** The most likely keys, never one alone. */
  readonly keys: readonly KeyCandidate[]
}

/** Why nothing can be said. */
export type RecordingFault = 'silence' | 'tooShort' | 'noPitch'

export type RecordingReading =
  ({ readonly ok: true } & RecordingPitch) | { readonly ok: false; readonly fault: RecordingFault }

/** Seconds of a recording that are needed, and windows with tones among them. */
const LEAST_SECONDS = 1.5
const LEAST_WINDOWS = 4

/** Root mean square under which a recording is silent. */
const SILENT = 1e-4

/** Share of the peaks' strength that must agree on one tuning; speech and noise have none. */
const LEAST_AGREEMENT = 0.3

/**
 * How far a recording lies off concert pitch, and the keys that it may be in. The tuning is the direction in which the
 * peaks' distances from the semitones agree (a mean on the circle of a semitone); the keys are those whose profile
 * is most like the strength of the twelve pitch classes.
 */
export function* recordingPitch(samples: Float32Array, rate: number): Generator<number, RecordingReading> {
  if (samples.length < LEAST_SECONDS * rate) return { ok: false, fault: 'tooShort' }
  let energy = 0
  for (const x of samples) energy += x * x
  if (Math.sqrt(energy / samples.length) < SILENT) return { ok: false, fault: 'silence' }
  const windows = yield* spectralPeaks(samples, rate)
  if (windows.length < LEAST_WINDOWS) return { ok: false, fault: 'noPitch' }
  const { cents, agreement } = tuningOf(windows)
  if (agreement < LEAST_AGREEMENT) return { ok: false, fault: 'noPitch' }
  return { ok: true, cents, keys: keysOf(windows, cents) }
}

const semitonesFromA = (hertz: number) => 12 * Math.log2(hertz / 440)

/** Two rounds: the second looks only at peaks near the first's answer, which stray partials pull aside. */
function tuningOf(windows: readonly (readonly Peak[])[]): { cents: number; agreement: number } {
  const first = meanOnCircle(windows, () => true)
  const near = (off: number) => Math.abs(wrapped(off - first.off)) < NEAR
  return { cents: Math.round(meanOnCircle(windows, near).off * 1000) / 10, agreement: first.agreement }
}

/** Semitones around the first answer. */
const NEAR = 0.2

/** A distance in semitones as −0.5 to 0.5. */
const wrapped = (x: number) => x - Math.round(x)

function meanOnCircle(
  windows: readonly (readonly Peak[])[],
  takes: (off: number) => boolean,
): { off: number; agreement: number } {
  let [x, y, all] = [0, 0, 0]
  for (const peaks of windows)
    for (const { hertz, strength } of peaks) {
      const off = wrapped(semitonesFromA(hertz))
      if (!takes(off)) continue
      const weight = Math.sqrt(strength)
      x += weight * Math.cos(2 * Math.PI * off)
      y += weight * Math.sin(2 * Math.PI * off)
      all += weight
    }
  return { off: Math.atan2(y, x) / (2 * Math.PI), agreement: all === 0 ? 0 : Math.hypot(x, y) / all }
}

/**
 * How much each degree belongs to a key: the probe-tone ratings of Krumhansl and Kessler (1982), from memory.
 */
const PROFILES = {
  major: [6.35, 2.23, 3.48, 2.33, 4.38, 4.09, 2.52, 5.19, 2.39, 3.66, 2.29, 2.88],
  minor: [6.33, 2.68, 3.52, 5.38, 2.6, 3.53, 2.54, 4.75, 3.98, 2.69, 3.34, 3.17],
} as const

const MOST_KEYS = 3

function keysOf(windows: readonly (readonly Peak[])[], cents: number): KeyCandidate[] {
  const classes = new Array<number>(12).fill(0)
  for (const peaks of windows) {
    const strongest = Math.max(...peaks.map((p) => p.strength))
    for (const { hertz, strength } of peaks)
      classes[mod12(Math.round(semitonesFromA(hertz) - cents / 100) + 9)]! += Math.sqrt(strength / strongest)
  }
  const all = (['major', 'minor'] as const).flatMap((mode) =>
    Array.from({ length: 12 }, (_, tonic) => {
      const turned = classes.map((_, i) => classes[(i + tonic) % 12]!)
      return { mode, tonic, likeness: correlation(turned, PROFILES[mode]) }
    }),
  )
  return all
    .sort((a, b) => b.likeness - a.likeness)
    .slice(0, MOST_KEYS)
    .map(({ mode, tonic, likeness }) => {
      const sharp = keyOf(plainName(tonic, false), mode)
      const flat = keyOf(plainName(tonic, true), mode)
      const key = Math.abs(flat.fifths) < Math.abs(sharp.fifths) ? flat : sharp
      return { key, likeness: Math.round(likeness * 100) / 100 }
    })
}

function correlation(a: readonly number[], b: readonly number[]): number {
  const mean = (list: readonly number[]) => list.reduce((s, x) => s + x, 0) / list.length
  const [ma, mb] = [mean(a), mean(b)]
  let [ab, aa, bb] = [0, 0, 0]
  a.forEach((x, i) => {
    ab += (x - ma) * (b[i]! - mb)
    aa += (x - ma) ** 2
    bb += (b[i]! - mb) ** 2
  })
  return aa === 0 || bb === 0 ? 0 : ab / Math.sqrt(aa * bb)
}
