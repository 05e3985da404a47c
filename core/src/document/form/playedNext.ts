import type { Unfolded } from './unfold.ts'

/** For each measure those that are played right after it in any pass; none after one that ends the tune. */
export function playedNext({ order }: Unfolded): ReadonlyMap<number, readonly number[]> {
  const next = new Map<number, number[]>()
  order.forEach(({ measure }, i) => {
    const own = next.get(measure) ?? []
    const to = order[i + 1]?.measure
    if (to !== undefined && !own.includes(to)) own.push(to)
    next.set(measure, own)
  })
  return next
}
