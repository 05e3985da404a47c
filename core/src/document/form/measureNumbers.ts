import type { Measure } from '../tune.ts'

/**
 * Measure numbers as printed. A pickup is measure 0; a short measure that completes the short one before it
 * (a repeat sign in mid-measure) shares its number.
 */
export function measureNumbers(measures: readonly Pick<Measure, 'length' | 'nominal'>[]): number[] {
  const numbers: number[] = []
  let number = 0
  let open = 0
  measures.forEach((m, i) => {
    const short = m.length < m.nominal
    if (i === 0) number = short && measures.length > 1 ? 0 : 1
    else if (short && open > 0 && open + m.length <= m.nominal) {
      numbers.push(number)
      open = 0
      return
    } else number++
    open = short && i > 0 ? m.length : 0
    numbers.push(number)
  })
  return numbers
}
