import type { PatternText } from '../../document/arrangement.ts'
import type { Stroke } from '../../instrument/hand.ts'
import { beatLength, beatStarts, isCompound, measureLength, type Metre } from '../../music/time/metre.ts'
import type { Ticks } from '../../music/time/ticks.ts'

/**
 * A string as a pattern names it: the shape's bass string, its other bass (what an alternating thumb goes to), a string
 * by its number, or the nth sounding string above the bass.
 */
export type PatternString =
  | { readonly of: 'bass' }
  | { readonly of: 'other' }
  | { readonly of: 'string'; readonly string: number }
  | { readonly of: 'above'; readonly steps: number }

/** A stroke across neighbouring strings. */
export interface Sweep {
  readonly direction: Stroke
  /** From the bass string on, or the strings above it only. */
  readonly over: 'all' | 'trebles'
  /** At least and at most so many strings; absent for as many as sound. */
  readonly least?: number
  readonly most?: number
  /** True where the strings are damped and only click. */
  readonly muted: boolean
}

/** What the picking hand does at one step of the grid: strings plucked together, a stroke, or both. */
export interface PatternStep {
  readonly strings: readonly PatternString[]
  readonly sweep?: Sweep
  readonly accent: boolean
  readonly palm: boolean
}

/** A pattern on the beat grid of a metre; undefined steps let ring. It may last several measures. */
export interface Pattern {
  readonly metre: Metre
  /** Steps a beat; a beat of 6/8 is dotted. */
  readonly perBeat: number
  readonly steps: readonly (PatternStep | undefined)[]
}

/** Steps of one measure of a metre. */
export const stepsOf = (metre: Metre, perBeat: number): number => beatStarts(metre).length * perBeat

/** Length of one step. */
export const stepTicks = ({ metre, perBeat }: Pick<Pattern, 'metre' | 'perBeat'>): Ticks =>
  beatLength(metre) / perBeat

/** Measures that a pattern lasts. */
export const measuresOf = (pattern: Pattern): number =>
  Math.round(pattern.steps.length / stepsOf(pattern.metre, pattern.perBeat))

/** True where a pattern written for one metre can be played in another: as long, and counted in the same kind of beat. */
export function fitsMetre({ metre }: Pick<PatternText, 'metre'>, other: Metre): boolean {
  return measureLength(metre) === measureLength(other) && isCompound(metre) === isCompound(other)
}
