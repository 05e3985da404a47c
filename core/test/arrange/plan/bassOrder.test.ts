import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { arranging, wholeTune } from '../../../src/arrange/index.ts'
import { audit, STRUCTURAL } from '../../../src/audit/index.ts'
import {
  bassOrdersText,
  readBassOrders,
  USUAL_SCHOOL,
  type BassOrder,
  type Style,
  type TuneDoc,
} from '../../../src/document/index.ts'
import { guitarSetup } from '../../../src/instrument/index.ts'
import { finishedTabOf, tabJson } from '../../../src/output/index.ts'
import { finish } from '../../../src/turns.ts'
import { tuneOfMusic } from '../../support/tunes.ts'

const setup = guitarSetup()

/** Strings of the basses, measure by measure, of a tune played with orders of bass strings. */
function basses(tune: TuneDoc, style: Style, level: 1 | 2 | 3 | 4 | 5, orders: readonly BassOrder[]) {
  const [region] = wholeTune(tune, style, level)
  const school = { ...USUAL_SCHOOL, bassStrings: orders }
  const { layer, plan } = finish(arranging(tune, setup, [{ ...region!, school }]))
  const strings = tune.measures.map((m) =>
    layer.notes
      .filter((n) => n.role === 'bass' && n.pos.measure === m.id)
      .sort((a, b) => a.pos.tick - b.pos.tick)
      .map((n) => n.place.string),
  )
  return { strings, json: tabJson(tune, setup, plan, layer, [], 0) }
}

const TUNE = '"C"e4|"C"g3e|"G"d4|"G"B2d2|"C"c4|]'

describe('the order of bass strings for a chord', () => {
  it('is what the thumb plays in a solo style: C on 5 4 6 4, and the other chords are found', () => {
    const tune = tuneOfMusic(TUNE)
    const orders = [{ chord: 'C', strings: [5, 4, 6, 4] }]
    for (const level of [2, 3, 4] as const) {
      const { strings } = basses(tune, 'alternating-bass', level, orders)
      expect(strings.slice(0, 2), `level ${level}`).toEqual([
        [5, 4, 6, 4],
        [5, 4, 6, 4],
      ])
      expect(strings[2]![0]).toBe(6)
    }
  })

  it('goes on over the bar line where there are fewer basses in a measure', () => {
    const tune = tuneOfMusic(TUNE)
    const { strings } = basses(tune, 'melody-bass', 3, [{ chord: 'C', strings: [5, 4, 6, 4] }])
    expect(strings.slice(0, 2)).toEqual([
      [5, 4],
      [6, 4],
    ])
  })

  it('is what a picking pattern plays: the ring finger goes to string 6 under C', () => {
    const tune = tuneOfMusic(TUNE)
    const { strings, json } = basses(tune, 'bass-brush', 3, [{ chord: 'C', strings: [5, 6] }])
    expect(strings.slice(0, 2)).toEqual([
      [5, 6],
      [5, 6],
    ])
    const low = json.notes.find((n) => n.string === 6)!
    expect([low.fret, low.leftFinger]).toEqual([3, 3])
    expect(audit(finishedTabOf(json)).findings.filter((f) => STRUCTURAL.has(f.kind))).toEqual([])
  })

  it('names tones of the chord', () => {
    const tune = tuneOfMusic(TUNE)
    const { json } = basses(tune, 'alternating-bass', 3, [{ chord: 'G', strings: [6, 5, 4] }])
    const under = json.notes.filter(
      (n) => n.role === 'bass' && n.start >= 2 * 4 * 10_080 && n.start < 4 * 4 * 10_080,
    )
    expect(under.length).toBeGreaterThan(4)
    for (const n of under) expect([7, 11, 2]).toContain(n.midi % 12)
  })
})

describe('orders in writing', () => {
  it('are read with or without spaces, by comma, semicolon or line', () => {
    const orders = [
      { chord: 'C', strings: [5, 4, 6, 4] },
      { chord: 'G7', strings: [6, 4] },
    ]
    for (const text of ['C 5 4 6 4, G7 6 4', 'C: 5464; G7: 64', 'C 5-4-6-4\nG7 6 4', ' C  5 4 64,,G7 6 4, '])
      expect(readBassOrders(text, 6)).toEqual({ ok: true, orders })
  })

  it('say what cannot be read', () => {
    expect(readBassOrders('X 5 4', 6)).toEqual({ ok: false, problem: 'chord', word: 'X' })
    expect(readBassOrders('C 5 7', 6)).toEqual({ ok: false, problem: 'string', word: '7' })
    expect(readBassOrders('C 5 x', 6)).toEqual({ ok: false, problem: 'string', word: 'x' })
    expect(readBassOrders('C', 6)).toEqual({ ok: false, problem: 'none', word: 'C' })
    expect(readBassOrders('C 5 4', 4)).toEqual({ ok: false, problem: 'string', word: '5' })
  })

  it('come back as they were written', () => {
    const order = fc.record({
      chord: fc.constantFrom('C', 'G7', 'Am', 'F#m7', 'Bb', 'D/F#'),
      strings: fc.array(fc.integer({ min: 1, max: 6 }), { minLength: 1, maxLength: 16 }),
    })
    fc.assert(
      fc.property(fc.uniqueArray(order, { selector: (o) => o.chord, maxLength: 6 }), (orders) => {
        expect(readBassOrders(bassOrdersText(orders), 6)).toEqual({ ok: true, orders })
      }),
    )
  })
})
