import { fingerMoves } from '../../hand/moves/fingerMoves.ts'
import type { PlacedFinger } from '../../hand/moves/placedFinger.ts'
import type { HandMove } from './lessonStep.ts'

/**
 * What the fretting hand does between what was down and what is to be down, as it is taught: a finger that does not keep all
 * of its strings is put down anew.
 */
export function handMove(before: readonly PlacedFinger[], now: readonly PlacedFinger[]): HandMove {
  const moves = fingerMoves(before, now)
  const placed = (...kinds: readonly string[]) =>
    moves.flatMap((m) => (m.now && kinds.includes(m.kind) ? [m.now] : []))
  return {
    stays: placed('stay'),
    slides: placed('slide'),
    lands: placed('land', 'roll', 'hop'),
    lifts: moves.flatMap((m) => (m.kind === 'lift' ? [m.finger] : [])),
  }
}
