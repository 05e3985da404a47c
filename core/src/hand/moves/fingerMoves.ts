import type { Finger, FingerSpan, PlacedFinger } from './placedFinger.ts'

/**
 * What one finger does between two grips. *stay*: it keeps its strings and its fret; *slide*: it goes along its strings to
 * another fret; *roll*: it is laid across more or fewer strings, or tips over to the next one, at its fret; *hop*: it leaves
 * for another place; *land*: it was free; *lift*: it comes off.
 */
export type MoveKind = 'stay' | 'slide' | 'roll' | 'hop' | 'land' | 'lift'

/** What a finger does, and where it was and is. */
export interface FingerMove {
  readonly finger: Finger
  readonly kind: MoveKind
  readonly before?: PlacedFinger
  readonly now?: PlacedFinger
}

/** What a finger does that goes from one place to another. */
export function moveKind(before: FingerSpan, now: FingerSpan): Exclude<MoveKind, 'land' | 'lift'> {
  const sameStrings = before.from === now.from && before.to === now.to
  if (before.fret !== now.fret) return sameStrings ? 'slide' : 'hop'
  if (sameStrings) return 'stay'
  return before.from <= now.to + 1 && now.from <= before.to + 1 ? 'roll' : 'hop'
}

/** True where two places have a string in common. */
export const shareString = (a: FingerSpan, b: FingerSpan): boolean => a.from <= b.to && b.from <= a.to

/**
 * What every finger does between what was down and what is to be down: first those that are to be down, then those that
 * lift. A finger that is to be in two places at once (a tab that no hand can hold) moves to each.
 */
export function fingerMoves(before: readonly PlacedFinger[], now: readonly PlacedFinger[]): FingerMove[] {
  const moves = now.map((to): FingerMove => {
    const from = before.find((f) => f.finger === to.finger)
    return from
      ? { finger: to.finger, kind: moveKind(from, to), before: from, now: to }
      : { finger: to.finger, kind: 'land', now: to }
  })
  const lifts = before.filter((f) => !now.some((to) => to.finger === f.finger))
  return [...moves, ...lifts.map((from): FingerMove => ({ finger: from.finger, kind: 'lift', before: from }))]
}
