import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { alternativesFor, arranging, wholeTune } from '@velvet-porch/core/arrange'
import { audit } from '@velvet-porch/core/audit'
import {
  TASTE_FEATURES,
  timelineOf,
  type Style,
  type TastePrices,
  type TuneDoc,
} from '@velvet-porch/core/document'
import { DEFAULT_PLAYER, guitarSetup } from '@velvet-porch/core/instrument'
import { finishedTabOf, tabJson } from '@velvet-porch/core/output'
import { readArrangementDoc } from '@velvet-porch/core/schema'
import { countsOf, offeredWays, priceOfCounts } from '@velvet-porch/core/taste'
import { finish } from '@velvet-porch/core/turns'
import { arrangedScore } from '../support/score.ts'
import { CORPUS, tuneOf } from '../support/tunes.ts'

const setup = guitarSetup()
const G = {
  chord: 'G',
  tuning: setup.tuning,
  frets: [3, 0, 0, 0, 2, 3],
  fingers: [4, 0, 0, 0, 2, 3],
} as const

function arranged(
  tune: TuneDoc,
  style: Style,
  level: 1 | 3 | 5,
  prices: TastePrices,
  shapes: readonly (typeof G)[] = [],
  of = setup,
) {
  const regions = wholeTune(tune, style, level).map((r) => ({ ...r, taste: { name: 'own', prices, shapes } }))
  const made = finish(arranging(tune, of, regions))
  return { ...made, regions, report: audit(finishedTabOf(tabJson(tune, of, made.plan, made.layer, [], 0))) }
}

const houses = new Map<TuneDoc, Map<Style, ReturnType<typeof arranged>>>()

/** The arrangement that no taste has changed: many tests compare with it. */
function house(tune: TuneDoc, style: Style) {
  const ofTune = houses.get(tune) ?? new Map<Style, ReturnType<typeof arranged>>()
  houses.set(tune, ofTune)
  const made = ofTune.get(style) ?? arranged(tune, style, 3, {})
  ofTune.set(style, made)
  return made
}

const counted = (page: ReturnType<typeof arranged>, tune: TuneDoc) =>
  countsOf(page.layer.notes, timelineOf(tune.measures), setup.instrument.strings)
const at = (feature: (typeof TASTE_FEATURES)[number]) => TASTE_FEATURES.indexOf(feature)

const tastes = fc.dictionary(
  fc.constantFrom(...TASTE_FEATURES),
  fc.double({ min: -6, max: 6, noNaN: true }),
  {
    maxKeys: 4,
  },
) as fc.Arbitrary<TastePrices>

describe('a taste in an arrangement', () => {
  it('never costs a melody note or breaks a rule of the hand, whatever it asks for', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...CORPUS.slice(0, 8)),
        fc.constantFrom<Style>('melody-bass', 'arpeggio', 'chord-melody', 'alternating-bass'),
        tastes,
        (tune, style, prices) => {
          const { report } = arranged(tune, style, 3, prices)
          expect(report.structural).toBe(0)
          expect(report.melodyKept).toBe(report.melodyNotes)
        },
      ),
      { numRuns: 12 },
    )
  })

  it.each([
    ['open', 6],
    ['high', -3],
    ['little', 6],
    ['bassLow', -4],
    ['inside', -5],
  ] as const)(
    '%s at %d: the finished tabs have no more of what is dear, no less of what is wanted',
    (feature, price) => {
      for (const style of ['melody-bass', 'arpeggio'] as const)
        for (const tune of CORPUS.slice(0, 6)) {
          const plain = counted(house(tune, style), tune)[at(feature)]!
          const own = counted(arranged(tune, style, 3, { [feature]: price }), tune)[at(feature)]!
          if (price > 0) expect(own).toBeLessThanOrEqual(plain)
          else expect(own).toBeGreaterThanOrEqual(plain)
        }
    },
  )

  it('moves something', () => {
    const share = (of: (tune: TuneDoc) => ReturnType<typeof arranged>) =>
      CORPUS.slice(0, 6).reduce((sum, tune) => sum + counted(of(tune), tune)[at('open')]!, 0)
    const wary = share((tune) => arranged(tune, 'arpeggio', 3, { open: 5 }))
    expect(wary).toBeLessThan(0.5 * share((tune) => house(tune, 'arpeggio')))
  })

  it('of no price is the house’s, note for note', () => {
    for (const tune of CORPUS.slice(0, 5)) {
      const plain = finish(arranging(tune, setup, wholeTune(tune, 'arpeggio', 3)))
      expect(house(tune, 'arpeggio').layer.notes).toEqual(plain.layer.notes)
    }
  })

  it('has a shape with its own fingers; a hand that cannot hold it does without', () => {
    const tune = tuneOf('X:1\nT:t\nM:4/4\nL:1/4\nQ:1/4=90\nK:G\n"G"G2B2|d4|"C"c2e2|"G"G4|]\n')
    const fingersOfBass = (page: ReturnType<typeof arranged>) =>
      page.layer.notes
        .filter((n) => n.role === 'bass' && n.place.string === 6 && n.place.fret === 3)
        .map((n) => n.left)
    expect(new Set(fingersOfBass(arranged(tune, 'melody-bass', 3, {}, [G])))).toEqual(new Set([3]))
    expect(new Set(fingersOfBass(arranged(tune, 'melody-bass', 3, {})))).not.toEqual(new Set([3]))
    const three = { ...DEFAULT_PLAYER, techniques: { ...DEFAULT_PLAYER.techniques, leftFingers: [1, 2, 3] } }
    const small = { ...setup, player: three as typeof DEFAULT_PLAYER }
    expect(arranged(tune, 'melody-bass', 3, {}, [G], small).report.structural).toBe(0)
  })

  it('is priced by the solver as the finished tab counts it', () => {
    const prices = { open: 2, high: -1, little: 1.5, bassLow: -2, fill: 1, inside: 2, voices: -1 } as const
    for (const tune of CORPUS.slice(0, 4)) {
      const { plan, solution } = arranged(tune, 'arpeggio', 3, prices)
      for (let t = 0; t < plan.slices.length; t += 9)
        for (const { extra, changes, counts } of alternativesFor(tune, setup, plan, solution, {
          from: t,
          to: t + 1,
        })) {
          const told = changes.filter((c) => c.term.startsWith('taste.')).reduce((sum, c) => sum + c.cost, 0)
          const difference = priceOfCounts(counts.after, prices) - priceOfCounts(counts.before, prices)
          expect(Math.abs(told - difference)).toBeLessThanOrEqual(0.3)
          expect(offeredWays([{ extra, counts }], prices)[1]!.price).toBeCloseTo(extra - difference, 6)
        }
    }
  })

  it('is kept with the arrangement, and a broken one is refused', () => {
    const { arrangement } = arrangedScore(CORPUS[0]!, 'arpeggio', 3)
    const of = (taste: object) => ({
      ...arrangement,
      regions: arrangement.regions.map((r) => ({ ...r, taste })),
    })
    const whole = of({ name: 'own', prices: { open: 2 }, shapes: [G] })
    expect(readArrangementDoc(JSON.parse(JSON.stringify(whole)))).toEqual(whole)
    expect(() => readArrangementDoc(of({ name: 'own', prices: { loud: 2 }, shapes: [] }))).toThrow(/loud/)
    expect(() => readArrangementDoc(of({ name: 'own', prices: { open: 99 }, shapes: [] }))).toThrow(/open/)
  })
})
