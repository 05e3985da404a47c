/** One line of the table of benchmarks. */
export interface Figure {
  readonly name: string
  readonly value: string
  readonly aim: string
  readonly met: boolean
}

/**
 * A figure that is at most so much.
 * @param value milliseconds for `ms` and `s`, kilobytes for `kB`
 * @param limit in the unit that is shown
 */
export function atMost(name: string, value: number, unit: 'ms' | 's' | 'kB', limit: number): Figure {
  const shown = unit === 's' ? value / 1000 : value
  return {
    name,
    value: `${shown.toFixed(unit === 's' ? 1 : 0)} ${unit}`,
    aim: `at most ${limit} ${unit}`,
    met: shown <= limit,
  }
}
