/** What is said with each step on request: how long its notes last, and what they are in the chord. */
export const ALONGSIDE = ['none', 'lengths', 'harmony', 'both'] as const
export type Alongside = (typeof ALONGSIDE)[number]
