/** Loops after which the tempo may rise: never, after each, after every second or fourth. */
export const LADDERS = [0, 1, 2, 4] as const
export type Ladder = (typeof LADDERS)[number]

/** A step up, and where the ladder ends: shares of the written tempo. Common practice, no source. */
const STEP = 0.05
const TOP = 1

/**
 * The tempo after a loop has been played so many times since the last change.
 * @param loops played at this tempo, the one that has just ended included
 */
export function tempoAfter(tempo: number, loops: number, ladder: Ladder): number {
  if (ladder === 0 || loops < ladder || tempo >= TOP) return tempo
  return Math.min(TOP, Math.round((tempo + STEP) * 100) / 100)
}
