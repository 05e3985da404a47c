import { WHOLE, type Ticks } from '../../music/time/ticks.ts'

export interface PlainValue {
  readonly ticks: Ticks
  readonly base: number
  readonly dots: number
}

const VALUES: readonly PlainValue[] = [1, 2, 4, 8, 16, 32, 64].flatMap((base) => [
  { ticks: (WHOLE / base) * 1.5, base, dots: 1 },
  { ticks: WHOLE / base, base, dots: 0 },
])

/**
 * Splits a length into plain note values, longest first, to be joined by ties. A rest of less than a 64th (inside an
 * odd tuplet) is given to the last value, so that the ticks always add up.
 */
export function plainValues(ticks: Ticks): PlainValue[] {
  const values: PlainValue[] = []
  let left = ticks
  for (const v of VALUES) {
    while (left >= v.ticks) {
      values.push(v)
      left -= v.ticks
    }
  }
  if (left > 0) {
    const last = values.pop()
    values.push(last ? { ...last, ticks: last.ticks + left } : { ticks: left, base: 64, dots: 0 })
  }
  return values
}
