import type { Midi } from '../music/pitch/pitch.ts'
import { DEFAULT_PLAYER, kindSpans, type Player } from './hand.ts'
import { GUITAR, STANDARD_TUNING, type Instrument, type Tuning } from './instrument.ts'

/**
 * What is played and by whom. `capo` holds the capo's fret for each string, string 1 first, 0 for none. `shift` moves the
 * tune from its own key by so many semitones. `octave` asks for it so many octaves higher besides, and is met where the
 * tune fits there; without it the octave is the arranger's choice.
 */
export interface Setup {
  readonly instrument: Instrument
  readonly tuning: Tuning
  readonly capo: readonly number[]
  readonly shift?: number
  readonly octave?: number
  readonly player: Player
}

/**
 * A place on the neck. `fret` counts from the capo; 0 is the open string. With `harmonic` the string is touched there,
 * over a node, and sounds in so many parts. `artificial` is a harmonic of a stopped string: the picking hand touches it
 * an octave above the fret.
 */
export interface Place {
  readonly string: number
  readonly fret: number
  readonly harmonic?: number
  readonly artificial?: true
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

/** The same setup with the tune moved from its own key, and into an octave that is asked for. */
export function withShift({ shift: _, octave: __, ...setup }: Setup, semitones = 0, octave?: number): Setup {
  return {
    ...setup,
    ...(semitones === 0 ? {} : { shift: semitones }),
    ...(octave === undefined ? {} : { octave }),
  }
}

/** The same setup for a hand that is not to be stretched. */
export const withKindHand = (setup: Setup): Setup => ({
  ...setup,
  player: { ...setup.player, spans: kindSpans(setup.player.spans) },
})

/** Pitch of a string stopped only by the capo. */
export function openPitch(setup: Setup, string: number): Midi {
  return setup.tuning[string - 1]! + setup.capo[string - 1]!
}

/** Frets between a stop and the node in the middle of the string that it leaves. */
export const OCTAVE = 12

/** Places at which a pitch can be had as an artificial harmonic: stopped, with the node still over the neck. */
export function artificialPlacesOf(setup: Setup, midi: Midi): Place[] {
  return placesOf(setup, midi - OCTAVE)
    .filter((p) => p.fret > 0 && p.fret + OCTAVE <= lastFret(setup, p.string))
    .map((p) => ({ ...p, artificial: true }))
}

/** What a place sounds. */
export function pitchAt(setup: Setup, place: Place): Midi {
  const stopped = place.artificial ? place.fret + OCTAVE : place.fret
  const above = place.harmonic ? Math.round(12 * Math.log2(place.harmonic)) : stopped
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
