import { describe, expect, it } from 'vitest'
import { bpmAt, tempoMap } from '../../../src/document/form/tempoMap.ts'
import { timelineOf } from '../../../src/document/index.ts'
import { tuneOf } from '../../support/tunes.ts'

const tune = tuneOf('X:1\nT:Test\nM:2/4\nL:1/4\nQ:1/4=80\nK:C\nCD|E[Q:1/4=120]F|GA|[Q:1/4=60]Bc|]\n')

describe('the tempos of a tune', () => {
  const map = tempoMap(tune, timelineOf(tune.measures))
  const quarter = 10_080

  it('stand on its written time line, in order, each from its own time on', () => {
    expect(map).toEqual([
      { at: 0, bpm: 80 },
      { at: 3 * quarter, bpm: 120 },
      { at: 6 * quarter, bpm: 60 },
    ])
    expect([0, 3 * quarter - 1, 3 * quarter, 5 * quarter, 6 * quarter].map((t) => bpmAt(map, t))).toEqual([
      80, 80, 120, 120, 60,
    ])
  })

  it('hold from before the first change; a tune without any is played as usual', () => {
    expect(bpmAt([{ at: quarter, bpm: 90 }], 0)).toBe(90)
    expect(bpmAt([], 0)).toBe(100)
  })
})
