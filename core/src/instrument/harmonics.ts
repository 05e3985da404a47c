import type { Midi } from '../music/pitch/pitch.ts'
import { openPitch, type Setup } from './setup.ts'

/**
 * A natural harmonic: the string touched where it divides in whole parts. Physics of the string; the same table stands
 * in any handbook of acoustics.
 */
export interface Harmonic {
  /** The string sounds in this many parts. */
  readonly parts: number
  /** Exact place of the node in frets from the capo; 3.86 is a little nut-side of fret 4. */
  readonly at: number
  /** Nearest fret. */
  readonly fret: number
  /** Nearest pitch in semitones above the open string, and how far the harmonic is off it. */
  readonly semitones: number
  readonly cents: number
}

/** Weaker divisions than this hardly sound. */
const MOST_PARTS = 6

/** Natural harmonics along any string, from the nut up to fret 24. */
export const HARMONICS: readonly Harmonic[] = nodes()

function nodes(): Harmonic[] {
  const found: Harmonic[] = []
  for (let parts = 2; parts <= MOST_PARTS; parts++) {
    for (let k = 1; k < parts; k++) {
      if (commonDivisor(k, parts) > 1) continue
      const at = -12 * Math.log2(1 - k / parts)
      if (at > 24.01) continue
      const exact = 12 * Math.log2(parts)
      const semitones = Math.round(exact)
      found.push({ parts, at, fret: Math.round(at), semitones, cents: Math.round((exact - semitones) * 100) })
    }
  }
  return found.sort((a, b) => a.at - b.at)
}

function commonDivisor(a: number, b: number): number {
  return b === 0 ? a : commonDivisor(b, a % b)
}

/** A harmonic on a string of this setup. */
export interface HarmonicPlace extends Harmonic {
  readonly string: number
  readonly midi: Midi
}

/** Every natural harmonic of a setup that lies over the neck, string 1 first. */
export function harmonicsOf(setup: Setup): HarmonicPlace[] {
  return setup.tuning.flatMap((_, i) =>
    HARMONICS.filter((h) => h.at + setup.capo[i]! <= 24.01).map((h) => ({
      ...h,
      string: i + 1,
      midi: openPitch(setup, i + 1) + h.semitones,
    })),
  )
}
