import type { Midi } from '../music/pitch/pitch.ts'

/**
 * An instrument as data. Strings (courses on a mandolin) are numbered from 1, the highest-pitched; arrays over
 * strings are indexed by string number minus one. Lengths are millimetres.
 */
export interface Instrument {
  readonly kind: 'guitar' | 'mandolin' | 'baritone' | 'tenor'
  readonly strings: number
  /** Strings sounded together in each course: 1 on a guitar, 2 on a mandolin. */
  readonly doubling: number
  readonly scaleLength: number
  /** Distance between neighbouring strings at the nut and at the bridge. */
  readonly spacing: { readonly nut: number; readonly bridge: number }
  readonly frets: number
  /** Fret at which the neck meets the body. */
  readonly bodyJoin: number
}

/** Open pitches, string 1 first. */
export type Tuning = readonly Midi[]

export const GUITAR: Instrument = {
  kind: 'guitar',
  strings: 6,
  doubling: 1,
  scaleLength: 648,
  spacing: { nut: 7.2, bridge: 10.8 },
  frets: 20,
  bodyJoin: 14,
}

export const STANDARD_TUNING: Tuning = [64, 59, 55, 50, 45, 40]
