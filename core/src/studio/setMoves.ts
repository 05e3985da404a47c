import type { InstrumentKind } from '../instrument/instruments.ts'
import type { Midi } from '../music/pitch/pitch.ts'

/** A tune as a gig or a class needs it. */
export interface SetTune {
  readonly id: string
  readonly minutes: number
  readonly kind: InstrumentKind
  /** Open strings, string 1 first. */
  readonly tuning: readonly Midi[]
  /** Fret of the capo on each string, 0 for none. */
  readonly capo: readonly number[]
}

/** What has to be done before a tune. */
export type SetMove =
  | { readonly kind: 'instrument'; readonly to: InstrumentKind }
  | { readonly kind: 'retune'; readonly string: number; readonly from: Midi; readonly to: Midi }
  | { readonly kind: 'capo'; readonly from: readonly number[]; readonly to: readonly number[] }

/** Seconds that moves take on a stage, and that each semitone of a string adds. Common practice, no source. */
const SECONDS = { instrument: 30, string: 10, semitone: 2, capo: 8 }

/** From one tune on an instrument to the next one on the same. */
export function movesBetween(from: SetTune, to: SetTune): SetMove[] {
  const strings = to.tuning.flatMap((pitch, i): SetMove[] =>
    from.tuning[i] === pitch
      ? []
      : [{ kind: 'retune', string: i + 1, from: from.tuning[i] ?? pitch, to: pitch }],
  )
  const capo = to.capo.some((fret, i) => fret !== from.capo[i])
  return [...(capo ? [{ kind: 'capo', from: from.capo, to: to.capo } as const] : []), ...strings]
}

/** Seconds of some moves. */
export const secondsOfMoves = (moves: readonly SetMove[]): number =>
  moves.reduce(
    (sum, move) =>
      sum +
      (move.kind === 'retune'
        ? SECONDS.string + SECONDS.semitone * Math.abs(move.to - move.from)
        : SECONDS[move.kind]),
    0,
  )

/**
 * What has to be done before each tune of an order. Each instrument keeps the tuning and capo that it was left with, and is
 * made ready for its first tune beforehand.
 */
export function movesOf(order: readonly SetTune[]): SetMove[][] {
  const left = new Map<InstrumentKind, SetTune>()
  return order.map((tune, i) => {
    const other = i > 0 && order[i - 1]!.kind !== tune.kind
    const before = left.get(tune.kind)
    left.set(tune.kind, tune)
    return [
      ...(other ? [{ kind: 'instrument', to: tune.kind } as const] : []),
      ...(before ? movesBetween(before, tune) : []),
    ]
  })
}

/** Seconds that an order costs in all. */
export const secondsOfOrder = (order: readonly SetTune[]): number =>
  movesOf(order).reduce((sum, moves) => sum + secondsOfMoves(moves), 0)
