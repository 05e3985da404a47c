import { TASTE_FEATURES, type TastePrices } from '@velvet-porch/core/document'

/** A made-up teacher who corrects as a taste would. */
export interface Teacher {
  readonly name: string
  /** What they like, in the solver's unit. */
  readonly prices: TastePrices
}

/** Four made by hand. */
export const BY_HAND: readonly Teacher[] = [
  { name: 'open-string lover', prices: { open: -4, high: 1 } },
  { name: 'closed-position player', prices: { open: 5 } },
  { name: 'thumb-over player', prices: { thumb: -6 } },
  { name: 'beginner’s teacher', prices: { little: 4, high: 3, spread: 4, fill: 5 } },
]

/** Numbers from 0 to 1 that are the same in every run. */
export function* seeded(seed: number): Generator<number, never> {
  let state = seed >>> 0
  for (;;) {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    yield state / 2 ** 32
  }
}

/** Teachers with two to four likes and dislikes, drawn at random over the features. */
export function drawnTeachers(count: number, seed: number): Teacher[] {
  const random = seeded(seed)
  const next = () => random.next().value
  // Few hands have the thumb over the neck.
  const features = TASTE_FEATURES.filter((f) => f !== 'thumb')
  return Array.from({ length: count }, (_, i) => {
    const wanted = 2 + Math.floor(next() * 3)
    const prices: Record<string, number> = {}
    while (Object.keys(prices).length < wanted) {
      const feature = features[Math.floor(next() * features.length)]!
      prices[feature] = (next() < 0.5 ? -1 : 1) * (1.5 + 3 * next())
    }
    return { name: `drawn ${i + 1}`, prices }
  })
}
