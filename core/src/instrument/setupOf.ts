import { DEFAULT_PLAYER, type Player } from './hand.ts'
import type { Tuning } from './instrument.ts'
import { INSTRUMENTS, type InstrumentKind } from './instruments.ts'
import type { Setup } from './setup.ts'

/** The capo: no string, all strings at one fret, or some strings only. */
export interface CapoChoice {
  readonly fret: number
  /** Strings under a partial capo; absent for all. */
  readonly strings?: readonly number[]
}

/** Fewest frets that must be left between capo and body for shapes to make sense. */
const LEAST_NECK = 4

/** The highest fret that a capo may take on an instrument. */
export function highestCapo(kind: InstrumentKind): number {
  return INSTRUMENTS[kind].instrument.bodyJoin - LEAST_NECK + 2
}

/** A setup from its parts. The capo must lie within `highestCapo`. */
export function setupOf(
  kind: InstrumentKind,
  tuning: Tuning = INSTRUMENTS[kind].usual,
  capo: CapoChoice = { fret: 0 },
  player: Player = DEFAULT_PLAYER,
): Setup {
  const { instrument } = INSTRUMENTS[kind]
  return {
    instrument,
    tuning,
    capo: tuning.map((_, i) => (!capo.strings || capo.strings.includes(i + 1) ? capo.fret : 0)),
    player,
  }
}
