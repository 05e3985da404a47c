import { describe, expect, it } from 'vitest'
import { regressionLines, regressionsOf } from '../src/regressions.ts'

const table = (...rows: [string, string][]) =>
  [
    '| what | measured | aim | |',
    '|---|---|---|---|',
    ...rows.map(([a, b]) => `| ${a} | ${b} | x | met |`),
  ].join('\n')
const figure = (name: string, value: string, aim = 'under 60 ms') => ({ name, value, aim, met: true })

describe('figures against the table that stands', () => {
  it('names what is a fifth worse and more, with both values', () => {
    const before = table(['a', '20.0 ms'], ['b', '20.0 ms'])
    const found = regressionsOf(before, [figure('a', '24.2 ms'), figure('b', '23.8 ms')])
    expect(regressionLines(found)).toEqual(['1.2 times worse: a: 24.2 ms, was 20.0 ms'])
  })

  it('compares by the ratio to the loop, so that a busy hour is no regression', () => {
    const before = table(['a', '20.0 ms (median 21 ms), 2.5 × the loop'])
    expect(regressionsOf(before, [figure('a', '40.0 ms (median 41 ms), 2.6 × the loop')])).toEqual([])
    expect(regressionsOf(before, [figure('a', '20.0 ms (median 21 ms), 5.0 × the loop')])[0]!.by).toBeCloseTo(
      2,
    )
  })

  it('knows where more is better, seconds beside milliseconds, and what is new', () => {
    const before = table(['speed', '300 × faster'], ['time', '900 ms'])
    const now = [figure('speed', '200 × faster', 'over 20 ×'), figure('time', '1.5 s'), figure('new', '9 s')]
    expect(regressionsOf(before, now).map((r) => r.name)).toEqual(['speed', 'time'])
  })

  it('leaves alone what the clock cannot tell', () => {
    expect(regressionsOf(table(['a', '1.0 ms']), [figure('a', '3.0 ms')])).toEqual([])
  })
})
