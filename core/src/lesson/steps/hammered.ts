import type { PlacedFinger } from '../../hand/moves/placedFinger.ts'
import type { HandMove, StepNote } from './lessonStep.ts'

/** True where a finger comes down with the sound itself: it hammers, and has not sounded its place just before. */
export const isHammered = (f: PlacedFinger, notes: readonly StepNote[]): boolean =>
  f.from === f.to &&
  notes.some((n) => {
    if (n.string !== f.from) return false
    const chain = [...n.graces, n]
    const at = chain.findIndex((c) => c.fret === f.fret && c.finger === f.finger)
    return at >= 0 && chain[at]!.attack === 'hammer'
  })

/** A finger that hammers is off before, wherever it was. */
export function offBefore(
  hand: HandMove,
  notes: readonly StepNote[],
  before: readonly PlacedFinger[],
): HandMove {
  const off = [...hand.stays, ...hand.lands].filter((f) => isHammered(f, notes))
  if (off.length === 0) return hand
  const lifted = off.map((f) => f.finger).filter((finger) => before.some((b) => b.finger === finger))
  return {
    ...hand,
    stays: hand.stays.filter((f) => !off.includes(f)),
    lifts: [...hand.lifts, ...lifted],
    lands: [...hand.lands.filter((f) => !off.includes(f)), ...off],
  }
}
