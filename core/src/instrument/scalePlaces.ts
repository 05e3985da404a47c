import { mod12, type PitchClass } from '../music/pitch/pitch.ts'
import { lastFret, pitchAt, type Place, type Setup } from './setup.ts'

/** A fret of the whole neck seen from a scale: the strings that stay inside it there. */
export interface ScaleFret {
  readonly fret: number
  readonly inside: readonly number[]
  readonly outside: readonly number[]
}

/**
 * Which strings are inside a scale at each fret; a fret where all are is *safe*: a straight barre, or any string, fits
 * the key.
 * @param tones pitch classes of the scale as it sounds
 * @param upTo last fret, counted from the capo
 */
export function scaleFrets(setup: Setup, tones: readonly PitchClass[], upTo = 12): ScaleFret[] {
  const strings = setup.tuning.map((_, i) => i + 1)
  return Array.from({ length: upTo + 1 }, (_, fret) => {
    const inside = strings.filter((string) => tones.includes(mod12(pitchAt(setup, { string, fret }))))
    return { fret, inside, outside: strings.filter((s) => !inside.includes(s)) }
  })
}

/** Frets at which at least `atLeast` strings (all, unless said) are in the scale. */
export function safeFrets(
  setup: Setup,
  tones: readonly PitchClass[],
  atLeast = setup.instrument.strings,
  upTo = 12,
): number[] {
  return scaleFrets(setup, tones, upTo)
    .filter((f) => f.inside.length >= atLeast)
    .map((f) => f.fret)
}

/** A scale or arpeggio tone in a position, with the finger that takes it. */
export interface PositionedTone extends Place {
  readonly finger: 0 | 1 | 2 | 3 | 4
  readonly pc: PitchClass
}

/** Fingers by fret above the position: one a fret on guitars, two frets a finger on the short mandolin neck. */
const FRETS_A_HAND = { guitar: [1, 2, 3, 4, 4], mandolin: [1, 1, 2, 2, 3, 3, 4] } as const

/**
 * The tones of a scale or arpeggio that a hand reaches without shifting, from the lowest string up. Position 1 includes
 * the open strings. A tone already had on the string below (as an unison higher up) is left out.
 * @param position fret of the index finger, counted from the capo
 */
export function tonesInPosition(
  setup: Setup,
  tones: readonly PitchClass[],
  position: number,
): PositionedTone[] {
  const fingers = setup.instrument.kind === 'mandolin' ? FRETS_A_HAND.mandolin : FRETS_A_HAND.guitar
  const found: PositionedTone[] = []
  let highest = -Infinity
  for (let string = setup.instrument.strings; string >= 1; string--) {
    const frets: Pick<PositionedTone, 'finger' | 'fret'>[] = fingers.map((finger, i) => ({
      finger,
      fret: position + i,
    }))
    if (position === 1) frets.unshift({ finger: 0, fret: 0 })
    for (const { finger, fret } of frets) {
      if (fret > lastFret(setup, string)) continue
      const pitch = pitchAt(setup, { string, fret })
      if (pitch <= highest || !tones.includes(mod12(pitch))) continue
      found.push({ string, fret, finger, pc: mod12(pitch) })
      highest = pitch
    }
  }
  return found
}
