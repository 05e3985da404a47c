import type { Place } from '../../instrument/setup.ts'

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
