/** A MIDI note number: 60 is middle C, 69 is A4 (MIDI 1.0 specification). */
export type Midi = number

/** A pitch class, 0 (C) to 11 (B). */
export type PitchClass = number

export const STEPS = ['C', 'D', 'E', 'F', 'G', 'A', 'B'] as const
export type Step = (typeof STEPS)[number]

/** Semitones of the natural steps above C. */
export const STEP_SEMITONES: Readonly<Record<Step, number>> = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 }

/** A note name without octave; `alter` counts sharps (+) or flats (−). */
export interface NoteName {
  readonly step: Step
  readonly alter: number
}

/** A spelled pitch; octave 4 starts at middle C. */
export interface Pitch extends NoteName {
  readonly octave: number
}

/** @example midiOf({ step: 'A', alter: 0, octave: 4 }) // 69 */
export function midiOf(pitch: Pitch): Midi {
  return 12 * (pitch.octave + 1) + STEP_SEMITONES[pitch.step] + pitch.alter
}

export function pitchClass(name: NoteName): PitchClass {
  return mod12(STEP_SEMITONES[name.step] + name.alter)
}

export function mod12(n: number): PitchClass {
  return ((n % 12) + 12) % 12
}

/** Frequency in hertz in equal temperament, A4 = 440 Hz (ISO 16:1975). */
export function hertz(midi: Midi): number {
  return 440 * 2 ** ((midi - 69) / 12)
}

const ALTER_TEXT: Readonly<Record<string, string>> = { '-2': 'bb', '-1': 'b', '0': '', '1': '#', '2': '##' }

/** @example nameText({ step: 'F', alter: 1 }) // 'F#' */
export function nameText(name: NoteName): string {
  return name.step + (ALTER_TEXT[String(name.alter)] ?? '')
}

/** @example pitchText({ step: 'B', alter: -1, octave: 3 }) // 'Bb3' */
export function pitchText(pitch: Pitch): string {
  return nameText(pitch) + String(pitch.octave)
}

/**
 * Reads a pitch with its octave; undefined where it is none.
 * @example readPitch('Bb3') // { step: 'B', alter: -1, octave: 3 }
 */
export function readPitch(text: string): Pitch | undefined {
  const found = /^([A-Ga-g])(##?|♯♯?|bb?|♭♭?)?(-?\d)$/.exec(text.trim())
  if (!found) return undefined
  const signs = found[2] ?? ''
  const alter = signs.length * (/[#♯]/.test(signs) ? 1 : -1) || 0
  return { step: found[1]!.toUpperCase() as Step, alter, octave: Number(found[3]) }
}

const SHARP_NAMES: readonly NoteName[] = (
  ['C', 'C#', 'D', 'D#', 'E', 'F', 'F#', 'G', 'G#', 'A', 'A#', 'B'] as const
).map((t) => ({ step: t[0] as Step, alter: t.length - 1 }))
const FLAT_NAMES: readonly NoteName[] = (
  ['C', 'Db', 'D', 'Eb', 'E', 'F', 'Gb', 'G', 'Ab', 'A', 'Bb', 'B'] as const
).map((t) => ({ step: t[0] as Step, alter: 1 - t.length }))

/**
 * A plain name of a pitch class, with sharps or flats by preference.
 * @example plainName(10, true) // B flat
 */
export function plainName(pc: PitchClass, flats: boolean): NoteName {
  return (flats ? FLAT_NAMES : SHARP_NAMES)[mod12(pc)]!
}

/** Spells a MIDI number with plain names. */
export function plainPitch(midi: Midi, flats: boolean): Pitch {
  const name = plainName(midi, flats)
  return { ...name, octave: Math.floor(midi / 12) - 1 }
}
