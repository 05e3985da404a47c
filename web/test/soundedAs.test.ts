import { arranging, finish, guitarSetup, wholeTune, type Lock, type TuneDoc } from '@velvet-porch/core'
import { readAbc } from '@velvet-porch/core/abc'
import { describe, expect, it } from 'vitest'
import { locksFor, pairAt, waysOf, type SoundedWay } from '../src/arrange/soundedAs.ts'
import { sheetModel } from '../src/sheet/sheetModel.ts'

const setup = guitarSetup()

const tuneOf = (music: string): TuneDoc =>
  readAbc(`X:1\nT:T\nM:4/4\nL:1/4\nQ:1/4=80\nK:D\n${music}\n`, () => 't')[0]!.tune!

function arranged(tune: TuneDoc, locks: readonly Lock[] = []) {
  const regions = wholeTune(tune, 'flatpicked-lead', 3)
  const { layer, plan } = finish(arranging(tune, setup, regions, { locks }))
  return sheetModel(tune, { setup, base: layer, transposed: plan.transposed, regions, variants: [] })
}

/** What becomes of the second note when a way is asked for at beat 2. */
function asked(tune: TuneDoc, way: SoundedWay) {
  const pair = pairAt(arranged(tune), { measure: 0, tick: 10_080 })!
  const locks = locksFor(setup, pair, way).map((l, i) => ({ ...l, id: String(i) }))
  return arranged(tune, locks).layer!.notes.find((n) => n.id === pair.to.id)!
}

describe('how a note is sounded', () => {
  it('is offered by what the two pitches allow on one string', () => {
    const ways = (music: string) =>
      waysOf(setup, pairAt(arranged(tuneOf(music)), { measure: 0, tick: 10_080 })!)
    expect(ways('"D"d e f2|]')).toEqual(expect.arrayContaining(['pluck', 'hammer', 'slide']))
    expect(ways('"D"e d f2|]')).toContain('pull')
    expect(ways('"D"e d f2|]')).not.toContain('bend')
    expect(ways('"D"d d f2|]')).toEqual(['pluck'])
    // Nine semitones are too far for a finger.
    expect(ways('"D"d b f2|]')).toEqual(['pluck'])
  })

  it('a swap to each way that is offered is played so, in one action', () => {
    for (const music of ['"D"d e f2|]', '"D"f g f2|]', '"D"a g f2|]', '"D"g f e2|]', '"D"B c d2|]']) {
      const tune = tuneOf(music)
      const pair = pairAt(arranged(tune), { measure: 0, tick: 10_080 })!
      for (const way of waysOf(setup, pair)) {
        // A bend also needs free strings beside it: it may be refused, and is then said.
        if (way === 'bend') continue
        expect(asked(tune, way).attack, `${music} ${way}`).toBe(way)
      }
    }
  })

  it('a bend keeps its place and is pushed up', () => {
    const note = asked(tuneOf('"D"d e f2|]'), 'bend')
    expect(note).toMatchObject({ attack: 'bend', bend: 2, right: 'none' })
  })

  it('is not asked of the first note, nor across a rest', () => {
    expect(pairAt(arranged(tuneOf('"D"d e f2|]')), { measure: 0, tick: 0 })).toBeUndefined()
    expect(pairAt(arranged(tuneOf('"D"d z f2|]')), { measure: 0, tick: 20_160 })).toBeUndefined()
  })
})
