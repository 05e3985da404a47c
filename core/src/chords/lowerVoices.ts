import { openPitch, type Place, type Setup } from '../instrument/setup.ts'
import { mod12, type PitchClass } from '../music/pitch/pitch.ts'

/** Bits of one string in a code of lower voices. */
const BITS = 5

/**
 * The voices under the melody as one number: five bits a string, its fret and one; 0 where it is silent or has the melody.
 * @param frets by string, string 1 first
 */
export function lowerVoices(frets: readonly (number | null)[], melody: Place | undefined): number {
  return frets.reduce<number>(
    (code, fret, i) => (fret === null || i + 1 === melody?.string ? code : code | ((fret + 1) << (BITS * i))),
    0,
  )
}

/** How many lower voices of the second chord are not in the first. */
export function voicesMoved(from: number, to: number): number {
  let moved = 0
  for (let rest = to, before = from; rest !== 0; rest >>>= BITS, before >>>= BITS) {
    const own = rest & 31
    if (own !== 0 && own !== (before & 31)) moved++
  }
  return moved
}

/** Where a tone lies on each string, as a code of lower voices within the octave: five bits a string, its fret and one. */
export const codeOfTone = (setup: Setup, tone: PitchClass): number =>
  lowerVoices(
    setup.tuning.map((_, i) => mod12(tone - openPitch(setup, i + 1))),
    undefined,
  )

/**
 * How many lower voices of the first chord have a tone that is to go down, and do not go down on their string.
 * @param tone its code
 * @param down semitones
 */
export function voicesNotLed(from: number, to: number, tone: number, down: number): number {
  let left = 0
  for (
    let rest = from, next = to, wanted = tone;
    rest !== 0;
    rest >>>= BITS, next >>>= BITS, wanted >>>= BITS
  ) {
    const own = rest & 31
    const isLed = own > down && (next & 31) === own - down
    if (own !== 0 && (own - (wanted & 31)) % 12 === 0 && !isLed) left++
  }
  return left
}
