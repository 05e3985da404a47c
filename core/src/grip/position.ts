import type { Pressed } from './pressed.ts'

/** Fret under (or ready for) the index finger, counted from the capo; at least 1. */
export function positionOf(pressed: readonly Pressed[]): number {
  let position = Infinity
  for (const p of pressed) position = Math.min(position, Math.max(p.fret - p.finger + 1, 1))
  for (const p of pressed) if (p.finger === 1) position = p.fret
  return Number.isFinite(position) ? position : 1
}
