import type { Ticks } from '../../music/time/ticks.ts'

/** What is taught at once: a beat, a chord's shape, a lick, a measure, a phrase, a part. */
export const UNITS = ['beat', 'shape', 'lick', 'measure', 'phrase', 'part'] as const
export type Unit = (typeof UNITS)[number]

/** A piece of a tune that is learnt at once. Measures are indices, both ends included. */
export interface Piece {
  /** From 1. */
  readonly number: number
  readonly from: number
  readonly to: number
  /** Where it begins in its first measure and ends (exclusive) in its last; absent at their start and end. */
  readonly tick?: Ticks
  readonly until?: Ticks
  /**
   * The earlier piece that it is like, with the measures in which they differ: none where it is the same once more.
   * Absent where most of it is new.
   */
  readonly like?: { readonly piece: number; readonly differs: readonly number[] }
}

/** True where a moment of a measure is in a piece. */
export function isInPiece(
  { from, to, tick = 0, until = Infinity }: Piece,
  at: { readonly measure: number; readonly tick: Ticks },
): boolean {
  const after = at.measure > from || (at.measure === from && at.tick >= tick)
  const before = at.measure < to || (at.measure === to && at.tick < until)
  return after && before
}
