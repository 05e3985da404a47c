/** Seconds of one short note, taken from the note that it stands before. Common practice, no source. */
export const GRACE_S = 0.065
