/** A random number between 0 and 1 that is the same in every run (a linear congruential generator, Numerical Recipes; from memory). */
export function seeded(seed: number): () => number {
  let state = seed >>> 0
  return () => (state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0) / 2 ** 32
}

/**
 * A string as sums of partials: nothing in common with the string model that the app plays. Each partial lies where a stiff string has it,
 * dies in its own time and begins anywhere in its swing.
 * @param hertz of its first partial
 */
export function additiveString(
  hertz: number,
  rate: number,
  length: number,
  { random, stiffness, after = 0.1 }: { random: () => number; stiffness: number; after?: number },
): Float32Array {
  const out = new Float32Array(length)
  const ideal = hertz / Math.sqrt(1 + stiffness)
  const at = 0.1 + 0.15 * random()
  for (let n = 1; n <= 24; n++) {
    const own = n * ideal * Math.sqrt(1 + stiffness * n * n)
    if (own > rate / 2.2) break
    const strength = (Math.abs(Math.sin(Math.PI * n * at)) / n) * (0.6 + 0.8 * random())
    const dies = (4 * (hertz / 82) ** -0.6) / (1 + 0.35 * n)
    const phase = 2 * Math.PI * random()
    for (let i = 0; i < length; i++) {
      const t = after + i / rate
      out[i] =
        out[i]! + strength * Math.exp((-6.9 * t) / dies) * Math.sin(2 * Math.PI * own * (i / rate) + phase)
    }
  }
  const loudest = out.reduce((most, x) => Math.max(most, Math.abs(x)), 0)
  return out.map((x) => (0.3 * x) / loudest)
}

/** A sound with white noise under it, so many decibels below its power. */
export function noise(sound: Float32Array, decibels: number, random: () => number): Float32Array {
  const power = sound.reduce((sum, x) => sum + x * x, 0) / sound.length
  const size = Math.sqrt(3 * power * 10 ** (-decibels / 10))
  return sound.map((x) => x + size * (2 * random() - 1))
}
