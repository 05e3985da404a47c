/** Ways to come to the end of a tune: slower through its last measures, and held on the last chord. */
export const CLOSES = ['slower'] as const
export type Close = (typeof CLOSES)[number]

/** Ways to sound the last chord: its strings one after the other; answered by harmonics at the twelfth fret. */
export const LAST_CHORDS = ['rolled', 'harmonics'] as const
export type LastChord = (typeof LAST_CHORDS)[number]
