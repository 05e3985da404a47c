import type { Instrument } from './instrument.ts'

/**
 * Distance of a fret from the nut in mm: L·(1 − 2^(−n/12)), the luthier's rule of 17.817.
 * @example fretFromNut(648, 12) // 324
 */
export function fretFromNut(scaleLength: number, fret: number): number {
  return scaleLength * (FRET_SHARES[fret] ?? 1 - 2 ** (-fret / 12))
}

/** Shares of the scale length, kept because the solver measures millions of reaches. */
const FRET_SHARES: readonly number[] = Array.from({ length: 37 }, (_, n) => 1 - 2 ** (-n / 12))

/** Where the finger stands for a fret, in mm from the nut: a third of the space behind the fret wire. */
export function fingerFromNut(scaleLength: number, fret: number): number {
  const wire = fretFromNut(scaleLength, fret)
  return wire - (wire - fretFromNut(scaleLength, fret - 1)) / 3
}

/** Distance between neighbouring strings at a point of the neck, in mm. */
export function stringSpacingAt(instrument: Instrument, fromNut: number): number {
  const { nut, bridge } = instrument.spacing
  return nut + ((bridge - nut) * fromNut) / instrument.scaleLength
}

/**
 * Reach between two fretted places in mm, measured straight along and across the neck. Frets count from the nut.
 */
export function reach(
  instrument: Instrument,
  a: { readonly string: number; readonly fret: number },
  b: { readonly string: number; readonly fret: number },
): number {
  const xa = fingerFromNut(instrument.scaleLength, a.fret)
  const xb = fingerFromNut(instrument.scaleLength, b.fret)
  const across = Math.abs(a.string - b.string) * stringSpacingAt(instrument, (xa + xb) / 2)
  return Math.hypot(xa - xb, across)
}
