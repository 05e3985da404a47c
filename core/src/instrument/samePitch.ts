import type { Midi } from '../music/pitch/pitch.ts'
import { harmonicsOf, type HarmonicPlace } from './harmonics.ts'
import { placesOf, type Place, type Setup } from './setup.ts'

/** Everywhere that a pitch can be had. */
export interface PitchPlaces {
  readonly open: readonly Place[]
  readonly fretted: readonly Place[]
  /** Natural harmonics, the purest first. */
  readonly harmonics: readonly HarmonicPlace[]
}

/** @example samePitchPlaces(guitarSetup(), 64).open // string 1 */
export function samePitchPlaces(setup: Setup, midi: Midi): PitchPlaces {
  const places = placesOf(setup, midi)
  return {
    open: places.filter((p) => p.fret === 0),
    fretted: places.filter((p) => p.fret > 0),
    harmonics: harmonicsOf(setup)
      .filter((h) => h.midi === midi)
      .sort((a, b) => a.parts - b.parts),
  }
}
