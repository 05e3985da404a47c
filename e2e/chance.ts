/** Repeatable chance: the same seed gives the same numbers in [0, 1). The generator is mulberry32. */
export function seededChance(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let x = Math.imul(state ^ (state >>> 15), state | 1)
    x ^= x + Math.imul(x ^ (x >>> 7), x | 61)
    return ((x ^ (x >>> 14)) >>> 0) / 4_294_967_296
  }
}

export type Chance = () => number

/** A whole number from 0 up to, not including, `below`. */
export const wholeBelow = (chance: Chance, below: number): number => Math.floor(chance() * below)

export const oneOf = <T>(chance: Chance, choices: readonly T[]): T =>
  choices[wholeBelow(chance, choices.length)]!
