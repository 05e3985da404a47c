import type { Setup } from '../../instrument/setup.ts'
import { mod12, type PitchClass } from '../../music/pitch/pitch.ts'

/** The chord of the open strings, behind the capo. */
export interface OpenChord {
  readonly root: PitchClass
  readonly minor: boolean
}

/**
 * The major or minor triad that all open strings make together; undefined where they make none. In such a tuning the
 * chord straight across at fret n is the same chord n semitones higher: I, IV and V at 0 or 12, 5 and 7 (common
 * practice, no source).
 */
export function straightAcross({ tuning, capo }: Pick<Setup, 'tuning' | 'capo'>): OpenChord | undefined {
  const tones = new Set(tuning.map((midi, i) => mod12(midi + capo[i]!)))
  for (const root of tones)
    for (const minor of [false, true]) {
      const triad = [root, mod12(root + (minor ? 3 : 4)), mod12(root + 7)]
      if (tones.size === 3 && triad.every((t) => tones.has(t))) return { root, minor }
    }
  return undefined
}
