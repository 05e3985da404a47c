import { degreeIn, type ChordReading, type PitchClass } from '@velvet-porch/core'

/** A chord tone's degree with printed signs. */
export const degreeLabel = (chord: ChordReading, pc: PitchClass): string =>
  degreeIn(chord, pc).replaceAll('b', '♭').replaceAll('#', '♯')
