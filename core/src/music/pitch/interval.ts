/** Semitones of a step at most. */
export const WHOLE_STEP = 2

/** An interval by its number and its kind. */
export interface Interval {
  /** 3 for a third, 6 for a sixth; 1 to 8 within an octave. */
  readonly number: number
  readonly quality: 'perfect' | 'major' | 'minor' | 'tritone'
}

const WITHIN_OCTAVE: readonly (readonly [number, Interval['quality']])[] = [
  [1, 'perfect'],
  [2, 'minor'],
  [2, 'major'],
  [3, 'minor'],
  [3, 'major'],
  [4, 'perfect'],
  [4, 'tritone'],
  [5, 'perfect'],
  [6, 'minor'],
  [6, 'major'],
  [7, 'minor'],
  [7, 'major'],
]

/**
 * The usual name of an interval in equal temperament; more than an octave is named as within it, an octave as such.
 * @param semitones between the two pitches, either way round
 * @example intervalOf(-9) // { number: 6, quality: 'major' }
 */
export function intervalOf(semitones: number): Interval {
  const wide = Math.abs(semitones)
  if (wide > 0 && wide % 12 === 0) return { number: 8, quality: 'perfect' }
  const [number, quality] = WITHIN_OCTAVE[wide % 12]!
  return { number, quality }
}
