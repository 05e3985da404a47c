/** How unevenly the two halves of a beat are played; none of them is straight. */
export const FEELS = ['light', 'shuffle'] as const
export type Feel = (typeof FEELS)[number]

/** Share of a beat that its first half takes: a little more than half, or two of three. Common practice, no source. */
export const FEEL_SHARE: Readonly<Record<Feel, number>> = { light: 0.58, shuffle: 2 / 3 }
