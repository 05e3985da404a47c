import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  arranging,
  filledRound,
  finish,
  givenMeasures,
  LEVELS,
  STYLES,
  withChoice,
  type Layer,
} from '../../../src/index.ts'
import { scoreOfPassage } from '../../support/passage.ts'
import { PASSAGES } from './passages.ts'

const scores = PASSAGES.map(scoreOfPassage)

const written = ({ notes }: Pick<Layer, 'notes'>) =>
  notes
    .map((n) => `${n.pos.measure} ${n.pos.tick} ${n.place.string}/${n.place.fret} ${n.dur.ticks} ${n.left}`)
    .sort()

describe('a tab that is given', () => {
  it('is the same after it is arranged again, in any style at any level: nothing is added, no finger changes', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...scores),
        fc.constantFrom(...STYLES),
        fc.constantFrom(...LEVELS),
        ({ tune, arrangement }, style, level) => {
          const { setup, base } = arrangement
          const regions = withChoice(arrangement.regions, 0, { style, level })
          const { layer } = finish(arranging(tune, setup, regions, { locks: base.locks }))
          expect(written(layer)).toEqual(written(base))
        },
      ),
      { numRuns: 120 },
    )
  })

  it('is filled round where that is asked for, and what was typed stays', () => {
    const { tune, arrangement } = scores[0]!
    const { setup, base } = arrangement
    expect([...givenMeasures(tune, arrangement.regions)]).toEqual(tune.measures.map((m) => m.id))
    const regions = filledRound(tune, arrangement.regions, 0, tune.measures.length - 1)
    expect(givenMeasures(tune, regions).size).toBe(0)
    const filled = finish(
      arranging(tune, setup, withChoice(regions, 0, { style: 'alternating-bass' }), { locks: base.locks }),
    ).layer
    expect(filled.notes.length).toBeGreaterThan(base.notes.length)
    for (const n of base.notes) expect(filled.notes.find((f) => f.id === n.id)?.place, n.id).toEqual(n.place)
  })

  it('is cut where some of its measures are filled', () => {
    const { tune } = scores[0]!
    const measures = Array.from({ length: 6 }, (_, i) => ({ ...tune.measures[0]!, id: `m${i}` }))
    const regions = [
      { from: 'm0', to: 'm5', style: 'strum' as const, level: 2 as const, given: true as const },
    ]
    const cut = filledRound({ measures }, regions, 2, 3)
    expect(cut.map((r) => [r.from, r.to, r.given ?? false])).toEqual([
      ['m0', 'm1', true],
      ['m2', 'm3', false],
      ['m4', 'm5', true],
    ])
  })
})
