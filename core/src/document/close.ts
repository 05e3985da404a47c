/** Ways to come to the end of a tune: slower through its last measures, and held on the last chord. */
export const CLOSES = ['slower'] as const
export type Close = (typeof CLOSES)[number]
