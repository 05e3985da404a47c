import { mod12 } from '../../music/pitch/pitch.ts'

/** All shifts of a key, the nearest to the tune's own first, within half an octave. */
export const ALL_SHIFTS: readonly number[] = [0, 1, -1, 2, -2, 3, -3, 4, -4, 5, -5, 6]

/** A move in semitones without its octaves: one of `ALL_SHIFTS`. */
export const nearestShift = (semitones: number): number => ((mod12(semitones) + 5) % 12) - 5
