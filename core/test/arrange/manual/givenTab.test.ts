import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  filledRound,
  givenMeasures,
  LEVELS,
  STYLES,
  USUAL_SCHOOL,
  withChoice,
  type Layer,
  type School,
  type TabNote,
} from '../../../src/document/index.ts'
import { arranging } from '../../../src/arrange/index.ts'
import { finish } from '../../../src/turns.ts'
import { structuralFaults } from '../../support/score.ts'
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

  it('stays in its octave, however high it lies', () => {
    const high = scoreOfPassage({
      name: 'high',
      places: '1.12 1.15 1.12 2.15 2.13 1.12 1.14 1.15',
      fingers: [],
    })
    expect(structuralFaults(high)).toEqual([])
    const { tune, arrangement } = high
    const again = finish(
      arranging(tune, arrangement.setup, arrangement.regions, { locks: arrangement.base.locks }),
    )
    expect(again.plan.transposed).toBe(0)
    expect(written(again.layer)).toEqual(written(arrangement.base))
  })

  it('is picked anew under another school, and not a note is added, moved or dropped', () => {
    const line = scoreOfPassage(PASSAGES.find((p) => p.name === 'G major in the second position')!)
    const anew = ({ tune, arrangement }: typeof line, school: Partial<School>) =>
      finish(
        arranging(
          tune,
          arrangement.setup,
          withChoice(arrangement.regions, 0, { school: { ...USUAL_SCHOOL, ...school } }),
          { locks: arrangement.base.locks },
        ),
      ).layer
    const struck = anew(line, { picking: 'flatPick', strokes: 'alternate' })
    expect(written(struck)).toEqual(written(line.arrangement.base))
    expect(struck.notes.map((n) => n.right)).toEqual(
      struck.notes.map((_, i) => (i % 2 === 0 ? 'down' : 'up')),
    )
    for (const score of scores) {
      const layer = anew(score, { picking: 'thumbAndIndex' })
      expect(written(layer)).toEqual(written(score.arrangement.base))
      const onsets = new Map<string, TabNote[]>()
      for (const n of layer.notes) {
        const at = `${n.pos.measure} ${n.pos.tick}`
        onsets.set(at, [...(onsets.get(at) ?? []), n])
      }
      // No finger plucks two strings at once, but for the thumb or index that brushes over neighbours.
      for (const own of onsets.values())
        for (const a of own)
          for (const b of own)
            if (a !== b && a.right === b.right && a.right !== 'none')
              expect(Math.abs(a.place.string - b.place.string)).toBeLessThanOrEqual(2)
    }
  })

  it('holds equal measures alike', () => {
    for (const passage of PASSAGES.slice(0, 30)) {
      const twice = scoreOfPassage({
        ...passage,
        places: `${passage.places} ${passage.places} ${passage.places}`,
      })
      const { tune, arrangement } = twice
      const ids = tune.measures.map((m) => m.id)
      const fingers = (id: string) =>
        arrangement.base.notes
          .filter((n) => n.pos.measure === id)
          .map((n) => `${n.pos.tick} ${n.place.string} ${n.left}`)
          .sort()
          .join()
      expect(fingers(ids[1]!), passage.name).toBe(fingers(ids[2]!))
    }
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
