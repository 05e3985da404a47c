import type { Piece } from './piece.ts'
import type { TroubleSpot } from './troubleSpots.ts'

/** One thing to learn: a hard change alone; a piece, or what it has otherwise; two pieces joined; all from the start. */
export type LearningStep =
  | { readonly kind: 'change'; readonly spot: TroubleSpot }
  | { readonly kind: 'piece'; readonly piece: Piece }
  | { readonly kind: 'join'; readonly from: Piece; readonly to: Piece }
  | { readonly kind: 'whole'; readonly upTo: Piece }

/** Whether each piece is joined to the one before it at once, or all of them at the end. */
export type Joining = 'each' | 'end'

/** A change is drilled alone before all else where it gives out below this share of the goal's tempo. */
const HARD = 1.1

/**
 * The order in which a tune is learnt: its hardest change early and alone; every piece once, in the order of the tune,
 * what comes again left out or taught by its difference; each joined to what stands before it.
 */
export function learningOrder(
  pieces: readonly Piece[],
  spots: readonly TroubleSpot[],
  goalBpm: number,
  joining: Joining = 'each',
): LearningStep[] {
  const steps: LearningStep[] = []
  const [hardest] = spots
  if (hardest && hardest.bpm < goalBpm * HARD) steps.push({ kind: 'change', spot: hardest })
  const joins: LearningStep[] = []
  pieces.forEach((piece, i) => {
    if (piece.like?.differs.length !== 0) steps.push({ kind: 'piece', piece })
    const before = pieces[i - 1]
    if (!before) return
    const join: LearningStep = { kind: 'join', from: before, to: piece }
    if (joining === 'end') joins.push(join)
    else steps.push(join)
  })
  const last = pieces.at(-1)
  return last && pieces.length > 1 ? [...steps, ...joins, { kind: 'whole', upTo: last }] : steps
}
