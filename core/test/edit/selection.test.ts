import { describe, expect, it } from 'vitest'
import type { ArrangementDoc, Score, TuneDoc } from '../../src/document/index.ts'
import { arranging } from '../../src/arrange/index.ts'
import { applyEdit, locksAround, withSelection } from '../../src/edit/index.ts'
import { finish } from '../../src/turns.ts'
import { arrangedScore, structuralFaults } from '../support/score.ts'
import { CORPUS } from '../support/tunes.ts'

const opened = (tune: TuneDoc) => arrangedScore(tune, 'alternating-bass', 3)

/** Some measures arranged anew, the others standing around them. */
function rearranged({ tune, arrangement }: Required<Score>, from: number, to: number): ArrangementDoc {
  const selected = new Set(tune.measures.slice(from, to + 1).map((m) => m.id))
  const locks = locksAround(tune, arrangement, selected)
  const { layer } = finish(arranging(tune, arrangement.setup, arrangement.regions, { locks }))
  return withSelection(tune, arrangement, layer, selected)
}

const outside = ({ tune, arrangement }: Required<Score>, doc: ArrangementDoc, from: number, to: number) => {
  const inside = new Set(tune.measures.slice(from, to + 1).map((m) => m.id))
  const notes = (d: ArrangementDoc) => d.base.notes.filter((n) => !inside.has(n.pos.measure))
  return [notes(arrangement), notes(doc)]
}

const TUNES = [0, 2, 5].map((i) => CORPUS[i]!)

describe('arranging some measures alone', () => {
  it.each(TUNES)('leaves the rest note for note, and a tab without structural faults ($title)', (tune) => {
    const score = opened(tune)
    for (const [from, to] of [
      [0, 0],
      [2, 4],
    ] as const) {
      const doc = rearranged(score, from, to)
      const [before, after] = outside(score, doc, from, to)
      expect(after).toEqual(before)
      expect(structuralFaults({ tune: score.tune, arrangement: doc })).toEqual([])
    }
  })

  it('answers a new melody in those measures, and keeps what was typed there', () => {
    const score = opened(TUNES[0]!)
    const [measure] = score.tune.measures.slice(2)
    const bass = score.arrangement.base.notes.find((n) => n.role === 'bass' && n.pos.measure === measure!.id)!
    const typed = applyEdit(score, {
      ...{ do: 'fret', at: bass.pos, string: bass.place.string, fret: bass.place.fret === 0 ? 2 : 0 },
      ...{ ticks: bass.dur.ticks, role: 'bass' },
    })
    if (!typed.ok) throw new Error('not typed')
    const before = typed.score as Required<Score>
    const doc = rearranged(before, 2, 2)
    const kept = doc.base.notes.find((n) => n.id === bass.id)!
    expect(kept.place).toEqual(before.arrangement.base.notes.find((n) => n.id === bass.id)!.place)
    expect(doc.base.locks).toEqual(before.arrangement.base.locks)
    const melody = doc.base.notes.filter((n) => n.role === 'melody' && n.pos.measure === measure!.id)
    const events = before.tune.events.filter((e) => e.voice === 0 && e.pitch && e.pos.measure === measure!.id)
    expect(melody.length).toBeGreaterThan(0)
    expect(melody.length).toBeLessThanOrEqual(events.length)
  })
})
