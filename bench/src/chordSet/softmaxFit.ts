/** One choice that a person made: the features of every alternative, and which was taken. Lower cost should win. */
export interface Choice {
  readonly alternatives: readonly Float64Array[]
  readonly taken: number
  readonly weight: number
}

/**
 * Fits prices so that the taken alternatives are the cheapest: multinomial logistic regression over −cost, ridge
 * penalty, full-batch gradient descent with momentum terms (Adam). Deterministic.
 * @returns one price a feature
 */
export function softmaxFit(
  choices: readonly Choice[],
  features: number,
  {
    start,
    ridge = 0.002,
    steps = 400,
    rate = 0.1,
  }: {
    readonly start: Float64Array
    readonly ridge?: number
    readonly steps?: number
    readonly rate?: number
  },
): Float64Array {
  const w = Float64Array.from(start)
  const mean = new Float64Array(features)
  const square = new Float64Array(features)
  const total = choices.reduce((sum, c) => sum + c.weight, 0)
  for (let step = 1; step <= steps; step++) {
    const gradient = new Float64Array(features)
    for (const choice of choices) addGradient(choice, w, gradient)
    for (let i = 0; i < features; i++) {
      const g = gradient[i]! / total + ridge * w[i]!
      mean[i] = 0.9 * mean[i]! + 0.1 * g
      square[i] = 0.999 * square[i]! + 0.001 * g * g
      const m = mean[i]! / (1 - 0.9 ** step)
      const v = square[i]! / (1 - 0.999 ** step)
      w[i] = w[i]! - (rate * m) / (Math.sqrt(v) + 1e-8)
    }
  }
  return w
}

const shares = new Float64Array(50_000)

function addGradient({ alternatives, taken, weight }: Choice, w: Float64Array, gradient: Float64Array): void {
  let least = Infinity
  for (let k = 0; k < alternatives.length; k++) {
    shares[k] = dot(alternatives[k]!, w)
    least = Math.min(least, shares[k]!)
  }
  let sum = 0
  for (let k = 0; k < alternatives.length; k++) sum += shares[k] = Math.exp(least - shares[k]!)
  for (let k = 0; k < alternatives.length; k++) {
    const pull = weight * ((k === taken ? 1 : 0) - shares[k]! / sum)
    if (Math.abs(pull) < 1e-9) continue
    const x = alternatives[k]!
    for (let i = 0; i < x.length; i++) gradient[i]! += pull * x[i]!
  }
}

export function dot(x: Float64Array, w: Float64Array): number {
  let sum = 0
  for (let i = 0; i < x.length; i++) sum += x[i]! * w[i]!
  return sum
}
