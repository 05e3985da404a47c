import type { Figure } from './figure.ts'

/** A figure that is worse than it was. */
export interface Regression {
  readonly name: string
  readonly before: string
  readonly now: string
  /** Times worse. */
  readonly by: number
}

/** From here on a figure is named: a fifth worse. */
const NAMED_FROM = 1.2

/** Less than this (ms, kB, times …) is noise of the clock. */
const LEAST = 5

/**
 * The figures of a table that are worse than in the table before by a fifth and more: by their ratio to the calibration loop where they have
 * one, which other machines and busy hours change little, and otherwise as measured.
 * @param before text of docs/benchmarks.md as it stands
 */
export function regressionsOf(before: string, figures: readonly Figure[]): Regression[] {
  const known = new Map(
    before.split('\n').flatMap((line): [string, string][] => {
      const [, name, value] = line.split('|').map((cell) => cell.trim())
      return name && value ? [[name, value]] : []
    }),
  )
  return figures.flatMap(({ name, value, aim }): Regression[] => {
    const was = known.get(name)
    const [a, b] = [was && measureOf(was), measureOf(value)]
    if (!was || !a || !b || a.unit !== b.unit) return []
    const by = aim.startsWith('over') ? a.amount / b.amount : b.amount / a.amount
    const isNoise = a.unit !== LOOPS && Math.max(a.amount, b.amount) < LEAST
    return by > NAMED_FROM && !isNoise ? [{ name, before: was, now: value, by }] : []
  })
}

const LOOPS = '× the loop'

/** What a cell of the table says first, or how many calibration loops it comes to. */
function measureOf(value: string): { readonly amount: number; readonly unit: string } | undefined {
  const loops = /([\d.]+) × the loop/.exec(value)
  if (loops) return { amount: Number(loops[1]), unit: LOOPS }
  const plain = /^([\d.]+) ?([^\s(,]*)/.exec(value)
  if (!plain) return undefined
  const [, amount, unit = ''] = plain
  // Seconds and milliseconds of one figure are compared.
  return unit === 's' ? { amount: Number(amount) * 1000, unit: 'ms' } : { amount: Number(amount), unit }
}

/** The regressions in words, one a line. */
export const regressionLines = (regressions: readonly Regression[]): string[] =>
  regressions.map((r) => `${r.by.toFixed(1)} times worse: ${r.name}: ${r.now}, was ${r.before}`)
