import 'fake-indexeddb/auto'
import { keyOf } from '@velvet-porch/core/music'
import { DEFAULT_PLAYER, guitarSetup } from '@velvet-porch/core/instrument'
import { inputHash, type TuneDoc } from '@velvet-porch/core/document'
import { arrangementOf, arranging, VOICE_TYPES, wholeTune, workOut } from '@velvet-porch/core/arrange'
import { finish } from '@velvet-porch/core/turns'
import { readAbc } from '@velvet-porch/core/input/abc'
import { beforeEach, describe, expect, it } from 'vitest'
import { putOnCopy, putOnTune } from '../src/features/fit/applyFit.ts'
import { firstConditions, questionOf, voiceOf } from '../src/features/fit/fitConditions.ts'
import { shiftTo } from '../src/features/fit/RecordingPitchPanel.tsx'
import { db } from '../src/state/db.ts'
import { step } from '../src/state/documents.ts'
import { arrangementId, shelfRow } from '../src/state/shelf.ts'

const tune: TuneDoc = readAbc(
  'X:1\nT:Latch\nM:4/4\nL:1/4\nK:G\n"G"GBd2|"C"cec2|"D"dfa2|"G"g4|]\n',
  () => 'tune',
)[0]!.tune!

const arranged = () => {
  const regions = wholeTune(tune, 'alternating-bass', 2)
  const setup = guitarSetup(2)
  const { layer, plan } = finish(arranging(tune, setup, regions))
  return arrangementOf(arrangementId(tune.id), 'Latch', tune, setup, regions, {
    layer,
    transposed: plan.transposed,
  })
}

describe('the conditions of a fit', () => {
  it('ask with the bench’s style where there is one, else with their own', () => {
    const doc = arranged()
    const bench = questionOf(tune, doc, firstConditions(doc), DEFAULT_PLAYER)
    expect(bench.regions).toEqual(doc.regions)
    expect(bench.tunings).toHaveLength(3)
    expect(bench.capos).toEqual([0, 1, 2, 3, 4, 5, 6, 7])
    expect(bench.shifts).toHaveLength(12)
    const own = questionOf(
      tune,
      null,
      { ...firstConditions(null), style: 'drone', level: 4, capo: [3, 3], keys: -2 },
      DEFAULT_PLAYER,
    )
    expect(own.regions).toMatchObject([{ style: 'drone', level: 4 }])
    expect([own.capos, own.shifts]).toEqual([[3], [-2]])
  })

  it('a voice is nobody, a rough kind, or what is typed', () => {
    expect(voiceOf({ voice: 'none', range: 'A3-D5' })).toEqual({})
    expect(voiceOf({ voice: 'alto', range: '' })).toEqual({ range: VOICE_TYPES.alto })
    expect(voiceOf({ voice: 'typed', range: ' ' })).toEqual({})
    expect(voiceOf({ voice: 'typed', range: 'A3-D5' })).toEqual({ range: { low: 57, high: 74 } })
    expect(voiceOf({ voice: 'typed', range: 'D5-A3' }).fault?.kind).toBe('upsideDown')
  })

  it('a recording’s key is reached by the shortest way; a minor key by its relative', () => {
    const key = (step: 'C' | 'D' | 'E' | 'G' | 'A', mode: 'major' | 'minor' = 'major') =>
      keyOf({ step, alter: 0 }, mode)
    expect(shiftTo(tune, key('G'))).toBe(0)
    expect(shiftTo(tune, key('A'))).toBe(2)
    expect(shiftTo(tune, key('E'))).toBe(-3)
    expect(shiftTo(tune, key('C'))).toBe(5)
    // E minor has the notes of G.
    expect(shiftTo(tune, key('E', 'minor'))).toBe(0)
  })
})

describe('a fit that is taken', () => {
  beforeEach(async () => {
    await Promise.all([db.tunes.clear(), db.arrangements.clear(), db.shelf.clear(), db.history.clear()])
    await db.tunes.put(tune)
    await db.shelf.put(shelfRow(tune))
  })

  const worked = () => {
    const doc = arranged()
    const question = questionOf(tune, doc, firstConditions(doc), DEFAULT_PLAYER)
    const choice = { tuning: question.tunings[1]!, shift: 3, capo: 1 }
    return { doc, question, ...finish(workOut(question, choice))! }
  }

  it('stands in the tune’s arrangement as one step, up to date, and is undone as one', async () => {
    const { doc, question, option, layer } = worked()
    await db.arrangements.put(doc)
    await putOnTune(question, option, layer, 'Fit')
    const made = (await db.arrangements.get(doc.id))!
    expect(made.setup).toMatchObject({ shift: 3, capo: [1, 1, 1, 1, 1, 1], tuning: question.tunings[1] })
    expect(made.inputHash).toBe(inputHash(tune, made.setup, made.regions, made.base.locks))
    expect(made.base.notes).toEqual(layer.notes)
    await step(doc.tuneId, 'undo')
    expect((await db.arrangements.get(doc.id))!.setup).toEqual(doc.setup)
  })

  it('stands on a copy, and the tune keeps its own', async () => {
    const { doc, question, option, layer } = worked()
    await db.arrangements.put(doc)
    const id = (await putOnCopy(question, option, layer, 'Latch in B♭'))!
    expect((await db.tunes.get(id))!.title).toBe('Latch in B♭')
    const copy = (await db.arrangements.get(arrangementId(id)))!
    expect(copy.tuneId).toBe(id)
    expect(copy.setup.shift).toBe(3)
    expect(copy.inputHash).toBe(inputHash((await db.tunes.get(id))!, copy.setup, copy.regions))
    expect(await db.arrangements.get(doc.id)).toEqual(doc)
  })
})
