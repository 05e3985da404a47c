import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { guitarSetup } from '../../../src/instrument/index.ts'
import { timelineOf } from '../../../src/document/index.ts'
import { staffOf } from '../../../src/output/index.ts'
import { hit, layOut, xAt, type LayoutMeasure } from '../../../src/output/layout/index.ts'
import { plainValues } from '../../../src/output/notation/plainValues.ts'
import { arrangeTune, CORPUS, tuneOfMusic } from '../../support/tunes.ts'

const measure: fc.Arbitrary<LayoutMeasure> = fc.record({
  length: fc.constantFrom(40320, 30240, 10080),
  onsets: fc.array(fc.nat(40319), { maxLength: 12 }),
  signs: fc.constantFrom(0, 20, 40),
})

describe('the layout contract', () => {
  it('places every measure once, in order, inside the page, columns rising and apart', () => {
    fc.assert(
      fc.property(
        fc.array(measure, { minLength: 1, maxLength: 40 }),
        fc.integer({ min: 500, max: 1400 }),
        (measures, width) => {
          const systems = layOut(measures, { width, head: 60, density: 1 })
          expect(systems.flatMap((s) => s.measures.map((m) => m.index))).toEqual(measures.map((_, i) => i))
          for (const s of systems) {
            let x = 60
            for (const m of s.measures) {
              expect(m.x).toBeCloseTo(x, 6)
              x = m.x + m.width
              m.columns.forEach((c, i) => {
                expect(c.x).toBeGreaterThan(m.x)
                expect(c.x).toBeLessThan(x)
                if (i > 0 && s.measures.length > 1)
                  expect(c.x - m.columns[i - 1]!.x).toBeGreaterThanOrEqual(16)
              })
            }
            if (s.measures.length > 1) expect(x).toBeLessThanOrEqual(width + 0.01)
          }
        },
      ),
    )
  })

  it('a click on a column means that column, and x runs with the ticks', () => {
    fc.assert(
      fc.property(fc.array(measure, { minLength: 1, maxLength: 8 }), (measures) => {
        for (const s of layOut(measures, { width: 900, head: 60, density: 1 })) {
          for (const m of s.measures) {
            for (const c of m.columns) {
              expect(hit(s, c.x)).toEqual({ measure: m.index, tick: c.tick })
              expect(xAt(m, c.tick, measures[m.index]!.length)).toBeCloseTo(c.x, 6)
            }
            const xs = [0, 0.2, 0.5, 0.9, 1].map((share) =>
              xAt(m, share * measures[m.index]!.length, measures[m.index]!.length),
            )
            for (let i = 1; i < xs.length; i++) expect(xs[i]!).toBeGreaterThanOrEqual(xs[i - 1]! - 1e-9)
          }
        }
      }),
    )
  })
})

describe('a line that runs on', () => {
  it('comes in pieces that join: every measure once, columns rising, a clef at the first alone', () => {
    fc.assert(
      fc.property(fc.array(measure, { minLength: 1, maxLength: 30 }), (measures) => {
        const pieces = layOut(measures, { width: 700, head: 60, density: 1, runsOn: true })
        expect(pieces.flatMap((s) => s.measures.map((m) => m.index))).toEqual(measures.map((_, i) => i))
        pieces.forEach((s, i) => {
          expect(s.head).toBe(i === 0 ? 60 : 0)
          expect(s.measures[0]!.x).toBe(s.head)
          const last = s.measures.at(-1)!
          expect(last.x + last.width).toBeCloseTo(s.width, 6)
          for (const m of s.measures)
            m.columns.forEach((c, k) => expect(c.x).toBeGreaterThan(k > 0 ? m.columns[k - 1]!.x : m.x))
        })
      }),
    )
  })
})

describe('the staff', () => {
  it('written plainly, has each note of the lower voice once, untied, with rests; all adds up', () => {
    for (const tune of CORPUS.slice(0, 5)) {
      const { layer } = arrangeTune(tune, 'alternating-bass', 3)
      const ringing = staffOf(tune, 0, guitarSetup(), layer.notes)
      const plain = staffOf(tune, 0, guitarSetup(), layer.notes, true)
      plain.forEach(({ upper, lower }, i) => {
        const shown = (signs: typeof lower) => signs.flatMap((s) => s.heads.map((h) => h.shows))
        expect(shown(upper)).toEqual(shown(ringing[i]!.upper))
        if (lower.length === 0) return
        expect(lower.reduce((sum, s) => sum + s.ticks, 0)).toBe(tune.measures[i]!.length)
        const notes = lower.filter((s) => s.kind === 'note')
        expect(notes.every((s) => s.heads.every((h) => !h.tied))).toBe(true)
        expect(new Set(shown(notes)).size).toBe(shown(notes).length)
        // A note struck here is written in both.
        const struck = new Set(
          layer.notes.filter((n) => n.pos.measure === tune.measures[i]!.id).map((n) => n.id),
        )
        const of = (signs: typeof lower) => new Set(shown(signs).filter((id) => struck.has(id)))
        expect(of(notes)).toEqual(of(ringing[i]!.lower))
      })
    }
  })

  it('both voices add up to the measure, whatever the arrangement', () => {
    for (const tune of CORPUS) {
      const { layer, plan } = arrangeTune(tune, 'alternating-bass', 2, 2)
      staffOf(tune, plan.transposed, guitarSetup(2), layer.notes).forEach((m, i) => {
        const sum = (signs: typeof m.upper) => signs.reduce((total, s) => total + s.ticks, 0)
        expect(sum(m.upper)).toBe(tune.measures[i]!.length)
        if (m.lower.length > 0) expect(sum(m.lower)).toBe(tune.measures[i]!.length)
      })
    }
  })

  it('prints an accidental once a measure and a natural to take it back', () => {
    const tune = tuneOfMusic('^F F =F G|F ^F- F2|]', 'M:4/4\nL:1/4\nK:C')
    const signs = staffOf(tune, 0).map((m) => m.upper.map((s) => s.heads[0]!.accidental))
    expect(signs).toEqual([
      [1, undefined, 0, undefined],
      [undefined, 1, undefined],
    ])
  })

  it('writes guitar pitch an octave above sounding', () => {
    const tune = tuneOfMusic('C4|]')
    expect(staffOf(tune, 0)[0]!.upper[0]!.heads[0]!.pitch.octave).toBe(4)
    expect(staffOf(tune, 0, guitarSetup())[0]!.upper[0]!.heads[0]!.pitch.octave).toBe(5)
    expect(staffOf(tune, -12, guitarSetup())[0]!.upper[0]!.heads[0]!.pitch.octave).toBe(4)
  })

  it('splits any length into plain values that add up', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 200_000 }), (ticks) => {
        expect(plainValues(ticks).reduce((sum, v) => sum + v.ticks, 0)).toBe(ticks)
      }),
    )
    expect(plainValues(25200).map((v) => [v.base, v.dots])).toEqual([
      [2, 0],
      [8, 0],
    ])
    expect(timelineOf(CORPUS[0]!.measures).length).toBe(12 * 40320)
  })
})
