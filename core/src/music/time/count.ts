import { beatLength, isCompound, type Metre } from './metre.ts'
import type { Ticks } from './ticks.ts'

/**
 * Syllables inside a beat, by how finely it is divided: the usual counts "1 &", "1 e & a" and "1 trip let", in which every
 * syllable has one place of its own. Common practice.
 */
const SYLLABLES: Readonly<Record<string, string>> = {
  '0.25': 'e',
  '0.333': 'trip',
  '0.5': '&',
  '0.667': 'let',
  '0.75': 'a',
}

/** The length that has a number of its own: the beat, in compound metres its third. */
export const countedBeat = (metre: Metre): Ticks =>
  isCompound(metre) ? beatLength(metre) / 3 : beatLength(metre)

/**
 * How a moment of a measure is counted: "1", "e", "&", "a", "trip", "let"; in compound metres every third of the dotted beat has its
 * number ("1" to "6" in 6/8).
 * @param tick from the start of the full measure
 * @returns undefined between the syllables
 * @example countAt({ num: 4, den: 4 }, 5040) // '&'
 */
export function countAt(metre: Metre, tick: Ticks): string | undefined {
  const beats = tick / countedBeat(metre)
  const whole = Math.floor(beats + 1e-9)
  const within = beats - whole
  if (within < 1e-9) return String(whole + 1)
  return SYLLABLES[String(Math.round(within * 1000) / 1000)]
}
