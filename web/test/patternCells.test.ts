import { describe, expect, it } from 'vitest'
import { readPattern, writePattern, type Pattern, type PatternStep } from '@velvet-porch/core/arrange'
import {
  hasString,
  STROKE_CELLS,
  strokeCell,
  withNextStroke,
  withSign,
  withString,
} from '../src/features/arrange/pattern/gridCells.ts'

const FOUR = { num: 4, den: 4 }

function patternOf(text: string): Pattern {
  const reading = readPattern({ metre: FOUR, perBeat: 1, text })
  if (!reading.ok) throw new Error(text)
  return reading.pattern
}
const edited = (pattern: Pattern, at: number, step: PatternStep | undefined) =>
  writePattern({ ...pattern, steps: pattern.steps.map((s, i) => (i === at ? step : s)) }).text

describe('the cells of a pattern’s grid', () => {
  it('clicking a stroke goes round all of its kinds and comes back to none', () => {
    let step: PatternStep | undefined
    const seen: string[] = [strokeCell(step)]
    for (let i = 0; i < STROKE_CELLS.length; i++) seen.push(strokeCell((step = withNextStroke(step))))
    expect(seen).toEqual([...STROKE_CELLS, 'none'])
    expect(step).toBeUndefined()
  })

  it('a string is put in and taken out again; a step that sounds nothing is a rest', () => {
    const pattern = patternOf('b 3 . 1')
    const bass = { of: 'bass' } as const
    expect(edited(pattern, 2, withString(pattern.steps[2], { of: 'string', string: 2 }))).toBe('b 3 2 1')
    expect(edited(pattern, 3, withString(pattern.steps[3], bass))).toBe('b 3 . 1b')
    expect(hasString(pattern.steps[0], bass)).toBe(true)
    expect(edited(pattern, 0, withString(pattern.steps[0], bass))).toBe('. 3 . 1')
  })

  it('accent and palm stand on what sounds, and on nothing else', () => {
    const pattern = patternOf('b d . 1')
    expect(edited(pattern, 1, withSign(pattern.steps[1], 'accent'))).toBe('b d! . 1')
    expect(edited(pattern, 1, withSign(pattern.steps[1], 'palm'))).toBe('b d_ . 1')
    expect(withSign(pattern.steps[2], 'accent')).toBeUndefined()
  })

  it('what is written of a stroke is told from its cell', () => {
    const cells = patternOf('D u d(2-3) D*').steps.map(strokeCell)
    expect(cells).toEqual(['down', 'upTrebles', 'downTrebles', 'muted'])
  })
})
