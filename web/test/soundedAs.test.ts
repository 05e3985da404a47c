import { guitarSetup, pitchAt } from '@velvet-porch/core/instrument'
import type { Lock, TuneDoc } from '@velvet-porch/core/document'
import { arranging, wholeTune } from '@velvet-porch/core/arrange'
import { finish } from '@velvet-porch/core/turns'
import { readAbc } from '@velvet-porch/core/input/abc'
import { describe, expect, it } from 'vitest'
import {
  isSoundedAs,
  locksFor,
  soundedAt,
  articulationsOf,
  type ArticulationChoice,
} from '../src/features/arrange/soundedAs.ts'
import { sheetModel } from '../src/score/sheet/sheetModel.ts'

const setup = guitarSetup()

const tuneOf = (music: string): TuneDoc =>
  readAbc(`X:1\nT:T\nM:4/4\nL:1/4\nQ:1/4=80\nK:D\n${music}\n`, () => 't')[0]!.tune!

function arranged(tune: TuneDoc, locks: readonly Lock[] = []) {
  const regions = wholeTune(tune, 'flatpicked-lead', 2)
  const { layer, plan } = finish(arranging(tune, setup, regions, { locks }))
  return sheetModel(tune, { setup, base: layer, transposed: plan.transposed, regions, variants: [] })
}

/** What becomes of the second note when a way is asked for at beat 2. */
function asked(tune: TuneDoc, way: ArticulationChoice) {
  const note = soundedAt(arranged(tune), { measure: 0, tick: 10_080 })!
  const locks = locksFor(setup, note, way).map((l, i) => ({ ...l, id: String(i) }))
  return arranged(tune, locks).layer!.notes.find((n) => n.id === note.to.id)!
}

describe('how a note is sounded', () => {
  it('is offered by what the two pitches allow on one string', () => {
    const ways = (music: string) =>
      articulationsOf(setup, soundedAt(arranged(tuneOf(music)), { measure: 0, tick: 10_080 })!)
    expect(ways('"D"d e f2|]')).toEqual(expect.arrayContaining(['pluck', 'hammer', 'slide']))
    expect(ways('"D"e d f2|]')).toContain('pull')
    expect(ways('"D"e d f2|]')).not.toContain('bend')
    // From one note to the same there is nothing to join; nine semitones are too far for a finger.
    for (const music of ['"D"d d f2|]', '"D"d b f2|]'])
      expect(ways(music).filter((w) => w !== 'preBend' && w !== 'artificial')).toEqual(['pluck'])
  })

  it('a swap to each way that is offered is played so, in one action', () => {
    for (const music of ['"D"d e f2|]', '"D"f g f2|]', '"D"a g f2|]', '"D"g f e2|]', '"D"B c d2|]']) {
      const tune = tuneOf(music)
      const note = soundedAt(arranged(tune), { measure: 0, tick: 10_080 })!
      for (const way of articulationsOf(setup, note)) {
        // A bend also needs free strings beside it: it may be refused, and is then said.
        if (way === 'bend') continue
        expect(isSoundedAs(asked(tune, way), way), `${music} ${way}`).toBe(true)
      }
    }
  })

  it('a bend keeps its place and is pushed up', () => {
    const note = asked(tuneOf('"D"d e f2|]'), 'bend')
    expect(note).toMatchObject({ attack: 'bend', bend: 2, right: 'none' })
  })

  it('has no note before it at the start, nor across a rest', () => {
    const at = (music: string, tick: number) => soundedAt(arranged(tuneOf(music)), { measure: 0, tick })
    expect(at('"D"d e f2|]', 0)!.from).toBeUndefined()
    expect(at('"D"d z f2|]', 20_160)!.from).toBeUndefined()
    expect(at('"D"d z f2|]', 10_080)).toBeUndefined()
  })

  it('a note is pushed up before the stroke from the pitch that the line falls to, and let back to it', () => {
    const tune = tuneOf('"D"d2 f e|]')
    const model = arranged(tune)
    const note = soundedAt(model, { measure: 0, tick: 20_160 })!
    const locks = locksFor(setup, note, 'preBend').map((l, i) => ({ ...l, id: String(i) }))
    const [, bent, back] = arranged(tune, locks).layer!.notes.filter((n) => n.role === 'melody')
    expect(bent).toMatchObject({ attack: 'pluck', bend: 2 })
    expect(back).toMatchObject({ attack: 'release', right: 'none', place: bent!.place, left: bent!.left })
    expect(pitchAt(setup, bent!.place) + bent!.bend!).toBe(pitchAt(setup, note.to.place))
  })

  it('an artificial harmonic is stopped an octave below its pitch', () => {
    const tune = tuneOf('"D"d a f2|]')
    const plain = soundedAt(arranged(tune), { measure: 0, tick: 10_080 })!.to
    const { place } = asked(tune, 'artificial')
    expect(place.artificial).toBe(true)
    expect(pitchAt(setup, place)).toBe(pitchAt(setup, plain.place))
    expect(pitchAt(setup, { string: place.string, fret: place.fret })).toBe(pitchAt(setup, place) - 12)
  })
})
