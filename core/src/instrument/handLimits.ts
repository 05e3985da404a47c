/**
 * Figures of a hand that many rooms share. Common practice and listening; no published source.
 */

/** Seconds under which no finger jumps between fretted places on two strings (rolls excepted). */
export const HOP_LIMIT_S = 0.15

/** Seconds under which one picking finger (not the thumb) lags on the same string. */
export const PICK_REPEAT_LIMIT_S = 0.15

/** Up to this many mm along the neck, a fret's width near the nut, the hand leans and does not travel. */
export const LEAN_LIMIT_MM = 37
