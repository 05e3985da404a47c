import { describe, expect, it } from 'vitest'
import { timelineOf, unfold, variantsOf, type ArrangementDoc, type Score } from '../../src/document/index.ts'
import { applyEdit, exchanged, keptAsOssia, type EditCommand } from '../../src/edit/index.ts'
import { scoreOf } from '../../src/output/sound/performance.ts'
import { readArrangementDoc } from '../../src/schema/index.ts'
import { arrangedScore, structuralFaults } from '../support/score.ts'
import { CORPUS } from '../support/tunes.ts'

const score = arrangedScore(CORPUS[0]!, 'melody-bass', 3)
const { tune } = score
const ids = tune.measures.slice(1, 3).map((m) => m.id)
const kept = keptAsOssia(score.arrangement, ids, 'plain', 'o')

/** The first bass of the second measure moved up an octave or to another fret. */
function written(from: Required<Score>): Required<Score> {
  const bass = from.arrangement.base.notes.find((n) => n.role === 'bass' && n.pos.measure === ids[0])!
  const edit: EditCommand = {
    do: 'fret',
    at: bass.pos,
    string: bass.place.string,
    fret: bass.place.fret + 2,
    ticks: bass.dur.ticks,
    role: 'bass',
  }
  const done = applyEdit(from, edit)
  if (!done.ok) throw new Error(done.refusal.reason)
  return done.score as Required<Score>
}

const places = ({ base }: Pick<ArrangementDoc, 'base'>) =>
  base.notes.map((n) => [n.id, n.pos, n.place, n.left, n.dur.ticks])

describe('an ossia', () => {
  it('keeps the measures as they are, whatever is written afterwards, and is stored', () => {
    const next = written({ tune, arrangement: kept })
    expect(places(next.arrangement)).not.toEqual(places(score.arrangement))
    expect(next.arrangement.variants).toEqual(kept.variants)
    expect(kept.variants[0]!.layer.notes).toEqual(
      score.arrangement.base.notes.filter((n) => ids.includes(n.pos.measure)),
    )
    expect(readArrangementDoc(JSON.parse(JSON.stringify(kept)))).toEqual(kept)
  })

  it('changes places with the main version, and back again; the other measures stay', () => {
    const next = written({ tune, arrangement: kept })
    const turned = exchanged(tune, next.arrangement, 'o')
    const inside = (doc: ArrangementDoc) =>
      places(doc).filter(([, pos]) => ids.includes((pos as { measure: string }).measure))
    const outside = (doc: ArrangementDoc) =>
      places(doc).filter(([, pos]) => !ids.includes((pos as { measure: string }).measure))
    expect(inside(turned)).toEqual(inside(score.arrangement))
    expect(outside(turned)).toEqual(outside(next.arrangement))
    expect(structuralFaults({ tune, arrangement: turned })).toEqual([])
    expect(places(exchanged(tune, turned, 'o'))).toEqual(places(next.arrangement))
    expect(exchanged(tune, next.arrangement, 'nobody')).toBe(next.arrangement)
  })

  it('whose melody the tune does not have any more keeps its notes', () => {
    const [, gone] = kept.variants[0]!.layer.notes.filter((n) => n.role === 'melody')
    const erased = applyEdit({ tune, arrangement: kept }, { do: 'erase', note: gone!.id })
    if (!erased.ok) throw new Error(erased.refusal.reason)
    const { tune: less, arrangement } = erased.score as Required<Score>
    expect(arrangement.base.notes.some((n) => n.id === gone!.id)).toBe(false)
    const back = exchanged(less, arrangement, 'o')
    expect(back.base.notes.find((n) => n.id === gone!.id)?.place).toEqual(gone!.place)
  })

  it('is played by its student, at its level or on its pass, and by nobody else', () => {
    const when = (w: ArrangementDoc['variants'][number]['when']): ArrangementDoc => ({
      ...kept,
      variants: [{ ...kept.variants[0]!, when: w }],
    })
    const own = (doc: ArrangementDoc, student?: string) => variantsOf(tune, doc, student).map((v) => v.id)
    expect(own(when({}), 'ana')).toEqual([])
    expect(own(when({ student: 'ana' }), 'ana')).toEqual(['o'])
    expect(own(when({ student: 'ana' }), 'ben')).toEqual([])
    expect(own(when({ student: 'ana' }))).toEqual([])
    expect(own(when({ level: 3 }))).toEqual(['o'])
    expect(own(when({ level: 2 }))).toEqual([])
    expect(own(when({ pass: 2 }), 'ana')).toEqual([])
    // A section at another level within its measures: not all of them are at level 3.
    const [first] = kept.regions
    const mixed = [
      { ...first!, to: ids[0]! },
      { ...first!, from: ids[1]!, level: 2 as const },
    ]
    expect(own({ ...when({ level: 3 }), regions: mixed })).toEqual([])
  })

  it('for a pass is heard on that pass alone', () => {
    const doc = written({
      tune,
      arrangement: { ...kept, variants: [{ ...kept.variants[0]!, when: { pass: 1 } }] },
    })
    const timeline = timelineOf(tune.measures)
    const unfolded = unfold(tune.measures)
    const heard = (variants: ArrangementDoc['variants'], base = doc.arrangement.base) =>
      scoreOf(tune, doc.arrangement.setup, base, timeline, unfolded, variants).notes.map((n) => [
        n.at,
        n.hertz,
      ])
    expect(heard(doc.arrangement.variants)).toEqual(heard([], score.arrangement.base))
    expect(heard([])).not.toEqual(heard(doc.arrangement.variants))
  })
})
