import { commandTo, type Score } from '@velvet-porch/core/document'
import { applyEdit, type EditCommand } from '@velvet-porch/core/edit'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { derived } from '../src/score/sheet/derived.ts'
import type { Rows } from '../src/score/sheet/metrics.ts'
import { NO_LAYERS } from '../src/score/sheet/TabLayer.tsx'
import { pageMaker } from '../src/score/sheet/pages.ts'
import { sheetMaker, sheetModel, type SheetModel } from '../src/score/sheet/sheetModel.ts'
import { arrangementFor, tuneOf } from './support.ts'

const tune = tuneOf(
  '"C"c2 "F"de|"G7"f/g/a ^g2|:"C"ecBA|"Am"A4:|"F"c>d "G"e^d|"C"c4|]\nw: a fine old gate and',
)
const opening: Score = { tune, arrangement: arrangementFor(tune, 3) }
const ids = tune.measures.map((m) => m.id)

const anEdit: fc.Arbitrary<EditCommand> = fc.oneof(
  fc.record({
    do: fc.constant('fret' as const),
    at: fc.record({ measure: fc.constantFrom(...ids), tick: fc.constantFrom(0, 10080, 20160) }),
    string: fc.integer({ min: 1, max: 6 }),
    fret: fc.integer({ min: 0, max: 12 }),
    ticks: fc.constantFrom(5040, 10080),
    role: fc.constantFrom('melody' as const, 'bass' as const, 'fill' as const),
  }),
  fc.record({
    do: fc.constant('insert' as const),
    before: fc.integer({ min: 0, max: 6 }),
    count: fc.constant(1),
  }),
  fc.record({
    do: fc.constant('delete' as const),
    from: fc.constantFrom(1, 4),
    to: fc.constantFrom(4, 1),
  }),
  fc.record({
    do: fc.constant('chord' as const),
    at: fc.record({ measure: fc.constantFrom(...ids), tick: fc.constantFrom(0, 20160) }),
    symbol: fc.constantFrom('Dm', 'E7', ''),
  }),
)

/** All that is drawn from a model, without the objects that only say whether it is the same. */
const drawn = ({ made: _, prints: __, readings, ...model }: SheetModel) => ({
  ...model,
  readings: model.tune.measures.map((___, i) => readings.get(i)),
})

/** An edit as it reaches the page: what did not change is the same object. */
function after(score: Score, edit: EditCommand): Score {
  const done = applyEdit(score, edit)
  if (!done.ok) return score
  const next = commandTo(score.tune, 'c', 'x', done.score.tune)?.doc ?? score.tune
  const tab = commandTo(score.arrangement!, 'c', 'x', done.score.arrangement!)?.doc ?? score.arrangement!
  return { tune: next, arrangement: tab }
}

/** What a measure is drawn from, read without the model's own shortcuts. */
const inMeasure = (model: SheetModel, i: number) => ({
  measure: model.tune.measures[i],
  number: model.numbers[i],
  staff: model.staff[i],
  notes: model.notes.get(i),
  ringsBefore: model.notes.get(i - 1)?.some((n) => n.letRing) ?? false,
  harmony: model.harmony.filter(
    (h) =>
      h.start >= model.timeline.starts[i]! &&
      h.start < model.timeline.starts[i]! + model.tune.measures[i]!.length,
  ),
  sung: model.sung.get(i),
  readings: model.readings.get(i),
  joins: (model.notes.get(i) ?? []).map((n) => model.joins.get(n.id)),
})

describe('a sheet that follows edits', () => {
  it('is always the sheet that is made from nothing, and says so of every measure that changed', () => {
    fc.assert(
      fc.property(fc.array(anEdit, { minLength: 1, maxLength: 8 }), (edits) => {
        const make = sheetMaker()
        let score = opening
        let before = make(score.tune, score.arrangement)
        for (const edit of edits) {
          score = after(score, edit)
          const model = make(score.tune, score.arrangement)
          expect(drawn(model)).toEqual(drawn(sheetModel(score.tune, score.arrangement)))
          model.prints.forEach((print, i) => {
            if (print === before.prints[i]) expect(inMeasure(model, i)).toEqual(inMeasure(before, i))
          })
          before = model
        }
      }),
      { numRuns: 60 },
    )
  })

  it('one fret in the tab leaves the prints of the other measures', () => {
    const make = sheetMaker()
    const a = make(opening.tune, opening.arrangement)
    const bass = opening.arrangement!.base.notes.find((n) => n.role === 'bass' && n.pos.measure === ids[3])!
    const edit: EditCommand = {
      ...{ do: 'fret', at: bass.pos, string: bass.place.string, fret: bass.place.fret + 1 },
      ...{ ticks: bass.dur.ticks, role: 'bass' },
    }
    const next = after(opening, edit)
    expect(next).not.toBe(opening)
    const b = make(next.tune, next.arrangement)
    const changed = b.prints.flatMap((p, i) => (p === a.prints[i] ? [] : [i]))
    expect(changed).toContain(3)
    expect(changed.every((i) => i >= 3 && i <= 4)).toBe(true)
  })

  it('a system keeps its page until something in it changes', () => {
    const model = sheetModel(tune, opening.arrangement)
    const systems = [0, 3].map((from, index) => ({
      index,
      ...{ head: 60, width: 300 },
      measures: [from, from + 1, from + 2].map((i) => ({ index: i, x: 0, width: 1, columns: [] })),
    }))
    const pages = pageMaker()
    const look = { layers: NO_LAYERS, rows: {} as Rows, lit: undefined }
    const first = pages(model, systems, look)
    expect(pages(model, systems, { ...look })).toBe(first)
    const locked = new Set([model.notes.get(4)![0]!.id])
    const second = pages(model, systems, { ...look, lit: { locked, changed: undefined } })
    expect(second[0]).not.toBe(first[0])
    const third = pages(model, systems, { ...look, lit: { locked: new Set(), changed: undefined } })
    expect(third[0]).toBe(second[0])
    expect(third[1]).not.toBe(second[1])
  })
})

describe('things that are derived again', () => {
  it('are the same exactly where their parts are', () => {
    const lists = fc.array(fc.array(fc.nat(3), { maxLength: 3 }), { maxLength: 6 })
    fc.assert(
      fc.property(lists, lists, (a, b) => {
        const one = derived(undefined, a, (i) => ({ i }))
        const two = derived(one, b, (i) => ({ i }))
        expect(two.made).toHaveLength(b.length)
        b.forEach((parts, i) => {
          const equal = i < a.length && JSON.stringify(parts) === JSON.stringify(a[i])
          expect(two.made[i] === one.made[i]).toBe(equal)
        })
      }),
    )
  })
})
