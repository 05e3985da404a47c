/** The tempo that stands in where a tune states none, in quarter notes a minute. */
export const USUAL_TEMPO = 100
