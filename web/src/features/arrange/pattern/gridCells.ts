import { sameContent } from '@velvet-porch/core/document'
import type { PatternStep, PatternString, Sweep } from '@velvet-porch/core/arrange'

/** What a stroke's cell can hold, in the order in which clicking goes round. */
export const STROKE_CELLS = ['none', 'down', 'up', 'downTrebles', 'upTrebles', 'muted'] as const
export type StrokeCell = (typeof STROKE_CELLS)[number]

const EMPTY: PatternStep = { strings: [], accent: false, palm: false }

/** Which of the cells a stroke is; least and most of a written pattern stay as they are until the cell is clicked. */
export function strokeCell(step: PatternStep | undefined): StrokeCell {
  const sweep = step?.sweep
  if (!sweep) return 'none'
  if (sweep.muted) return 'muted'
  return sweep.over === 'all' ? sweep.direction : `${sweep.direction}Trebles`
}

function sweepOf(cell: StrokeCell): Sweep | undefined {
  if (cell === 'none') return undefined
  if (cell === 'muted') return { direction: 'down', over: 'all', muted: true }
  const direction = cell.startsWith('down') ? 'down' : 'up'
  return { direction, over: cell.endsWith('Trebles') ? 'trebles' : 'all', muted: false }
}

/** The step with the next stroke. */
export function withNextStroke(step: PatternStep | undefined): PatternStep | undefined {
  const cell = STROKE_CELLS[(STROKE_CELLS.indexOf(strokeCell(step)) + 1) % STROKE_CELLS.length]!
  const { sweep: _, ...rest } = step ?? EMPTY
  const sweep = sweepOf(cell)
  return kept({ ...rest, ...(sweep ? { sweep } : {}) })
}

const same = (a: PatternString, b: PatternString) => sameContent(a, b)

export const hasString = (step: PatternStep | undefined, string: PatternString): boolean =>
  Boolean(step?.strings.some((s) => same(s, string)))

/** The step with a string more, or without it. */
export function withString(step: PatternStep | undefined, string: PatternString): PatternStep | undefined {
  const old = step ?? EMPTY
  const strings = hasString(old, string)
    ? old.strings.filter((s) => !same(s, string))
    : [...old.strings, string]
  return kept({ ...old, strings })
}

/** The step accented, or with the palm on the bridge; only where something sounds. */
export function withSign(step: PatternStep | undefined, sign: 'accent' | 'palm'): PatternStep | undefined {
  return step && { ...step, [sign]: !step[sign] }
}

/** A step that sounds nothing is no step. */
const kept = (step: PatternStep): PatternStep | undefined =>
  step.strings.length > 0 || step.sweep ? step : undefined
