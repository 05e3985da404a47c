/** Told by a button that unfolds something: the names of what is in it, a line each. */
export const HOLDS = 'data-holds'

/**
 * Marks a button as one that unfolds controls, so that the palette finds them while they are folded.
 * @param names of the controls, as they are read out once unfolded
 */
export const holds = (names: readonly string[]) => ({ [HOLDS]: names.join('\n') })
