import { produce } from 'immer'
import { describe, expect, it } from 'vitest'
import { inFullMeasure, QUARTER } from '../../../src/music/index.ts'
import { guitarSetup } from '../../../src/instrument/index.ts'
import { command, timelineOf, unfold, type TuneDoc } from '../../../src/document/index.ts'
import { arranging, arrangementOf, wholeTune } from '../../../src/arrange/index.ts'
import { applyEdit } from '../../../src/edit/index.ts'
import { finish } from '../../../src/turns.ts'
import { scoreOf } from '../../../src/output/sound/index.ts'
import { tuneOf } from '../../support/tunes.ts'

/** Two parts, each with a pickup of three eighths that its last measure pays back. */
const tune = tuneOf(
  'X:1\nT:Two pickups\nM:4/4\nL:1/8\nQ:1/4=120\nK:G\nDEF|"G"G2B2 d2B2|"D7"A2c2 "G"G:|\n|:def|"G"g2d2 B2d2|"D7"c2A2 "G"G:|\n',
)
const second = tune.measures.findIndex((m, i) => i > 0 && m.length < m.nominal && m.repeatStart)

function arranged(of: TuneDoc) {
  const setup = guitarSetup()
  const regions = wholeTune(of, 'flatpicked-lead', 1)
  const { layer, plan } = finish(arranging(of, setup, regions))
  return arrangementOf('t.a', 't', of, setup, regions, { layer, transposed: plan.transposed })
}

const strokes = (doc: ReturnType<typeof arranged>, measure: number) =>
  doc.base.notes.filter((n) => n.pos.measure === tune.measures[measure]!.id).map((n) => n.right)

describe('a pickup into the second part', () => {
  it('counts from the end of its measure, as the first one does', () => {
    expect(second).toBeGreaterThan(1)
    for (const m of [0, second]) expect(inFullMeasure(tune.measures[m]!, 0)).toBe(2.5 * QUARTER)
    const paying = tune.measures[second - 1]!
    expect([paying.cut, inFullMeasure(paying, 0)]).toEqual([true, 0])
  })

  it('is picked as the first one is: up off the beat, down on it; also when it is picked again after an edit', () => {
    const doc = arranged(tune)
    expect(strokes(doc, 0)).toEqual(['up', 'down', 'up'])
    expect(strokes(doc, second)).toEqual(['up', 'down', 'up'])
    const again = applyEdit({ tune, arrangement: doc }, { do: 'finger', from: second, to: second })
    expect(again.ok && strokes(again.score.arrangement!, second)).toEqual(['up', 'down', 'up'])
  })

  it('is clicked on the beats: no two clicks stand closer than a beat', () => {
    const { setup, base } = arranged(tune)
    const { clicks } = scoreOf(tune, setup, base, timelineOf(tune.measures), unfold(tune.measures))
    const gaps = clicks.slice(1).map((c, i) => c.at - clicks[i]!.at)
    expect(new Set(gaps)).toEqual(new Set([QUARTER]))
    const strong = clicks.filter((c) => c.strong).map((c) => c.at)
    expect(strong.slice(1).every((at, i) => at - strong[i]! >= 2 * QUARTER)).toBe(true)
  })
})

it('a command leaves the library as it is: what others make with it is frozen still', () => {
  command({ rev: 1, title: 'a' }, 'c', 'x', (d) => void (d.title = 'b'))
  expect(Object.isFrozen(produce({ list: [1] }, (d) => void d.list.push(2)))).toBe(true)
})
