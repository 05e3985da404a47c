import type { PressedPlace } from '../../document/tab.ts'
import type { Pressed } from './pressed.ts'

const FINGER_A_FRET = [0, 1, 2, 3]

/**
 * Fret under (or ready for) the index finger, counted from the capo; at least 1. The thumb has no say.
 * @param frame offsets of the fingers from the index in frets, as `fingerOffsets` gives them
 */
export function positionOf(
  pressed: readonly Pressed[],
  fingerOffsets: readonly number[] = FINGER_A_FRET,
): number {
  let position = Infinity
  for (const p of pressed) {
    if (p.finger > 4) continue
    if (p.finger === 1) return p.fret
    position = Math.min(position, Math.max(p.fret - Math.floor(fingerOffsets[p.finger - 1]!), 1))
  }
  return Number.isFinite(position) ? position : 1
}

/** The position that places written by hand or read from a tab stand for, a finger a fret; 0 where nothing is pressed. */
export function placedPosition(places: readonly Pick<PressedPlace, 'finger' | 'fret'>[]): number {
  const fingers = places.flatMap((p) => (p.finger === 'T' ? [] : [p.fret - (p.finger - 1)]))
  return fingers.length > 0 ? Math.max(1, Math.min(...fingers)) : 0
}
