import { degreeIn, type ChordReading, type PitchClass } from '@velvet-porch/core/music'

/** A degree with printed signs. */
export const printed = (degree: string): string => degree.replaceAll('b', '♭').replaceAll('#', '♯')

/** A chord tone's degree with printed signs. */
export const degreeLabel = (chord: ChordReading, pc: PitchClass): string => printed(degreeIn(chord, pc))
