import { MODE_STEPS } from './key.ts'
import { mod12, pitchClass, type NoteName, type PitchClass } from './pitch.ts'

/** Scales by name: semitones above the tonic. Checked against `tonal` in the tests. */
export const SCALES = {
  major: MODE_STEPS.major,
  minor: MODE_STEPS.minor,
  harmonicMinor: [0, 2, 3, 5, 7, 8, 11],
  melodicMinor: [0, 2, 3, 5, 7, 9, 11],
  dorian: MODE_STEPS.dorian,
  mixolydian: MODE_STEPS.mixolydian,
  lydian: MODE_STEPS.lydian,
  phrygian: MODE_STEPS.phrygian,
  majorPentatonic: [0, 2, 4, 7, 9],
  minorPentatonic: [0, 3, 5, 7, 10],
  blues: [0, 3, 5, 6, 7, 10],
} as const satisfies Record<string, readonly number[]>

export type ScaleName = keyof typeof SCALES

/** The scale's pitch classes from the tonic up. */
export function scaleTones(tonic: NoteName, scale: ScaleName): PitchClass[] {
  const root = pitchClass(tonic)
  return SCALES[scale].map((s) => mod12(root + s))
}

const DEGREES = ['1', 'b2', '2', 'b3', '3', '4', 'b5', '5', 'b6', '6', 'b7', '7'] as const

/**
 * The degree of a pitch class above a tonic, as the major scale counts.
 * @example degreeAbove({ step: 'D', alter: 0 }, 6) // '3'
 */
export function degreeAbove(tonic: NoteName, pc: PitchClass): string {
  return DEGREES[mod12(pc - pitchClass(tonic))]!
}
