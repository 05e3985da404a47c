import type { Midi } from '../pitch/pitch.ts'
import { DEFAULT_PLAYER, type Player } from './hand.ts'
import { GUITAR, STANDARD_TUNING, type Instrument, type Tuning } from './instrument.ts'

/** What is played and by whom. `capo` holds the capo's fret for each string, string 1 first, 0 for none. */
export interface Setup {
  readonly instrument: Instrument
  readonly tuning: Tuning
  readonly capo: readonly number[]
  readonly player: Player
}

/**
 * A place on the neck. `fret` counts from the capo; 0 is the open string. With `harmonic` the string is touched there,
 * over a node, and sounds in so many parts.
 */
export interface Place {
  readonly string: number
  readonly fret: number
  readonly harmonic?: number
  /** Beside the fret by so many cents, where a bottleneck or a bend stops the string off it. */
  readonly offsetCents?: number
}

/** A guitar in standard tuning with a full capo. */
export function guitarSetup(capo = 0): Setup {
  return {
    instrument: GUITAR,
    tuning: STANDARD_TUNING,
    capo: Array.from({ length: GUITAR.strings }, () => capo),
    player: DEFAULT_PLAYER,
  }
}

/** Pitch of a string stopped only by the capo. */
export function openPitch(setup: Setup, string: number): Midi {
  return setup.tuning[string - 1]! + setup.capo[string - 1]!
}

/** What a place sounds. */
export function pitchAt(setup: Setup, place: Place): Midi {
  const above = place.harmonic ? Math.round(12 * Math.log2(place.harmonic)) : place.fret
  return openPitch(setup, place.string) + above
}

/** Highest fret of a string, counted from the capo. */
export function lastFret(setup: Setup, string: number): number {
  return setup.instrument.frets - setup.capo[string - 1]!
}

/** The fret as the wood counts it, for geometry. */
export function fretOnNeck(setup: Setup, place: Place): number {
  return place.fret + setup.capo[place.string - 1]!
}

/** All places that sound a pitch, string 1 first. */
export function placesOf(setup: Setup, midi: Midi): Place[] {
  const places: Place[] = []
  for (let string = 1; string <= setup.instrument.strings; string++) {
    const fret = midi - openPitch(setup, string)
    if (fret >= 0 && fret <= lastFret(setup, string)) places.push({ string, fret })
  }
  return places
}

/** Lowest and highest pitch that the setup can sound. */
export function rangeOf(setup: Setup): { readonly lowest: Midi; readonly highest: Midi } {
  const strings = setup.tuning.map((_, i) => i + 1)
  return {
    lowest: Math.min(...strings.map((s) => openPitch(setup, s))),
    highest: Math.max(...strings.map((s) => openPitch(setup, s) + lastFret(setup, s))),
  }
}
