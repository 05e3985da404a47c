import type { Ornament } from '../../document/style.ts'

/** Seconds between two notes that a slur may join unasked: slower ones ring better plucked. No source. */
const SLUR_S = { least: 0.09, most: 0.55 }

/** True where a slur may join two notes so many seconds apart, unasked. */
export const isSlurTime = (seconds: number): boolean => seconds >= SLUR_S.least && seconds <= SLUR_S.most

/** A note of this many seconds may get a short one before it, or be bent up to, at the fullest density. No source. */
export const GRACED_S = 0.5
/** Seconds of one short note, taken from the note that it stands before. Common practice, no source. */
export const GRACE_S = 0.065

/** Semitones that an unasked slur spans at most, by density. */
export const SLUR_SPANS: Readonly<Record<Ornament, number>> = { 0: 0, 1: 0, 2: 3, 3: 4 }
