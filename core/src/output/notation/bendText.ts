/** Whole steps of a bend's semitones, as they are written over its arrow. */
const STEPS: Readonly<Record<number, string>> = { 0.5: '¼', 1: '½', 2: '1', 3: '1½', 4: '2' }

/** @example bendText(3) // '1½' */
export const bendText = (semitones: number): string => STEPS[semitones] ?? String(semitones)
