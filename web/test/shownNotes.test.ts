import { describe, expect, it } from 'vitest'
import { guitarSetup } from '@velvet-porch/core/instrument'
import { lockOf, type ArrangementDoc } from '@velvet-porch/core/document'
import { alternativesFor, arrangementOf, arranging, wholeTune } from '@velvet-porch/core/arrange'
import { finish } from '@velvet-porch/core/turns'
import { readAbc } from '@velvet-porch/core/input/abc'
import { changedNotes, lockedTargets, withAlternative } from '../src/features/arrange/shownNotes.ts'
import { doubleStops } from '../src/score/sheet/doubleStops.ts'
import { sheetModel } from '../src/score/sheet/sheetModel.ts'

const tune = readAbc(
  'X:1\nT:Gate Latch\nM:4/4\nL:1/4\nQ:1/4=100\nK:C\n"C"cdec|"F"f2"G7"d2|"C"edcB|"C"c4|]\n',
  () => 'tune',
)[0]!.tune!
const setup = guitarSetup()

function arrange(style: 'melody-bass' | 'double-stops') {
  const regions = wholeTune(tune, style, 3)
  const arranged = finish(arranging(tune, setup, regions))
  const doc: ArrangementDoc = arrangementOf('a', 'Gate Latch', tune, setup, regions, {
    layer: arranged.layer,
    transposed: arranged.plan.transposed,
  })
  return { ...arranged, doc }
}

describe('what the sheet shows of another way', () => {
  it('is the arrangement with just the notes of that way moved, and those are marked', () => {
    const { doc, plan, solution } = arrange('melody-bass')
    const target = { from: plan.firstSlice[2]!, to: plan.firstSlice[3]! }
    const [way] = alternativesFor(tune, setup, plan, solution, target)
    const shown = withAlternative(doc, way!)
    expect(shown.base.notes.map((n) => n.id)).toEqual(doc.base.notes.map((n) => n.id))
    const changed = changedNotes(doc, shown)
    expect([...changed].sort()).toEqual(way!.moved.map((n) => n.id).sort())
    expect(changedNotes(doc, doc).size).toBe(0)
  })

  it('marks notes that came and notes that went', () => {
    const { doc } = arrange('melody-bass')
    const fewer = { ...doc, base: { ...doc.base, notes: doc.base.notes.slice(1) } }
    expect([...changedNotes(doc, fewer)]).toEqual([doc.base.notes[0]!.id])
    expect([...changedNotes(fewer, doc)]).toEqual([doc.base.notes[0]!.id])
  })

  it('knows what is locked', () => {
    const { doc } = arrange('melody-bass')
    const locks = [lockOf('place', 'l', 'n.e1', { string: 1, fret: 3 })]
    expect([...lockedTargets(tune, { ...doc, base: { ...doc.base, locks } })]).toEqual(['n.e1'])
    expect(lockedTargets(tune, undefined).size).toBe(0)
    // Where the tab is given everything is as it was typed: no sign at every note.
    const note = doc.base.notes.find((n) => n.id !== 'n.e1')!
    const typed = [...locks, lockOf('typed', 't', note.id, note)]
    const asTyped = { ...doc, base: { ...doc.base, locks: typed } }
    expect([...lockedTargets(tune, asTyped)].sort()).toEqual(['n.e1', note.id].sort())
    const given = { ...asTyped, regions: doc.regions.map((r) => ({ ...r, given: true as const })) }
    expect([...lockedTargets(tune, given)]).toEqual(['n.e1'])
    // Fingers that the text names for every note say nothing either; a single one does.
    const fretted = doc.base.notes.filter((n) => n.place.fret > 0)
    const fingers = fretted.map((n) => lockOf('left', `l.${n.id}`, n.id, 1))
    const withFingers = (own: typeof fingers) => ({ ...given, base: { ...doc.base, locks: own } })
    expect([...lockedTargets(tune, withFingers(fingers))]).toEqual([])
    expect([...lockedTargets(tune, withFingers(fingers.slice(0, 1)))]).toEqual([fretted[0]!.id])
  })
})

describe('double stops on the sheet', () => {
  it('are named in their own style and nowhere else', () => {
    const named = (style: 'melody-bass' | 'double-stops') => {
      const model = sheetModel(tune, arrange(style).doc)
      return [...model.notes.values()].flatMap((notes) => doubleStops(model, notes))
    }
    expect(named('melody-bass')).toEqual([])
    const stops = named('double-stops')
    expect(stops.length).toBeGreaterThan(4)
    for (const { interval } of stops) expect([3, 4, 5, 6]).toContain(interval.number)
  })
})
