import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { TASTE_FEATURES, type TasteFeature, type TastePrices } from '@velvet-porch/core/document'
import { guitarSetup } from '@velvet-porch/core/instrument'
import { readTaste } from '@velvet-porch/core/schema'
import {
  fitTaste,
  habitsInForce,
  newTaste,
  noticesOf,
  priceOfCounts,
  readTasteShape,
  tasteInForce,
  withComparisons,
  withEntry,
  type Case,
  type Comparison,
  type TasteEntry,
  type TasteSays,
  type WayComparison,
} from '@velvet-porch/core/taste'

const caseOf = (measure: number, tune = 'a'): Case => ({ tune, title: tune, measure, day: '2026-01-01' })

/** Numbers from 0 to 1 that follow from a seed. */
function seeded(seed: number): () => number {
  let state = seed
  return () => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 2 ** 32
}

/** Ways as an arranger offers them: what stands there is the cheapest, the others differ in a few features. */
function offers(random: () => number): WayComparison['ways'] {
  const way = (price: number) => ({ price, counts: TASTE_FEATURES.map(() => Math.floor(3 * random() ** 2)) })
  return [way(0), ...Array.from({ length: 4 }, () => way(5 * random()))]
}

const choices = (
  count: number,
  seed: number,
  choose: (ways: WayComparison['ways']) => number,
): WayComparison[] => {
  const random = seeded(seed)
  return Array.from({ length: count }, (_, i) => {
    const ways = offers(random)
    return { kind: 'way' as const, at: caseOf(i), ways, taken: choose(ways) }
  }).filter((c) => c.taken > 0)
}

const cheapest = (prices: TastePrices) => (ways: WayComparison['ways']) => {
  const costs = ways.map((w) => w.price + priceOfCounts(w.counts, prices))
  return costs.indexOf(Math.min(...costs))
}

describe('prices fitted to choices', () => {
  it('have the sign of the taste that made the choices, and no feature beside it', () => {
    const truth = { open: -4, bassHigh: 3 } as const
    const { prices } = fitTaste(choices(80, 5, cheapest(truth)))
    expect(Object.keys(prices).sort()).toEqual(['bassHigh', 'open'])
    expect(prices.open).toBeLessThan(-1)
    expect(prices.bassHigh).toBeGreaterThan(1)
  })

  it('stay the house’s for somebody who takes anything', () => {
    let wrong = 0
    for (let seed = 1; seed <= 60; seed++) {
      const random = seeded(1000 + seed)
      const { prices } = fitTaste(choices(30, seed, (ways) => 1 + Math.floor(random() * (ways.length - 1))))
      wrong += Object.keys(prices).length
    }
    expect(wrong).toBeLessThanOrEqual(3)
  })

  it('do not depend on the order of the choices', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 50 }), fc.integer({ min: 1, max: 1000 }), (seed, shuffle) => {
        const made = choices(40, seed, cheapest({ little: 4, fill: -2 }))
        const random = seeded(shuffle)
        const shuffled = made
          .map((c) => ({ c, at: random() }))
          .sort((a, b) => a.at - b.at)
          .map(({ c }) => c)
        const [a, b] = [fitTaste(made).prices, fitTaste(shuffled).prices]
        for (const f of TASTE_FEATURES)
          expect(Math.abs((a[f] ?? 0) - (b[f] ?? 0))).toBeLessThanOrEqual(0.02 * Math.abs(a[f] ?? 0) + 1e-9)
      }),
      { numRuns: 20 },
    )
  })

  it('explain at least as many choices as the house does', () => {
    for (let seed = 1; seed <= 10; seed++) {
      const { agrees } = fitTaste(choices(40, seed, cheapest({ inside: -5, high: 2 })))
      expect(agrees.taste).toBeGreaterThanOrEqual(agrees.house)
    }
  })

  it('make fills dear for whoever takes them out', () => {
    const leftOut = (measure: number): Comparison => ({ kind: 'leftOut', at: caseOf(measure) })
    expect(fitTaste([leftOut(1), leftOut(1), leftOut(2)]).prices).toEqual({})
    expect(fitTaste([leftOut(1), leftOut(2), leftOut(3)]).prices.fill).toBeGreaterThan(3)
  })
})

const setup = guitarSetup()
const shapeOf = (fingers: string) => {
  const read = readTasteShape('G', '320003', fingers, setup)
  if (!read.ok) throw new Error(read.problem)
  return read.shape
}
const took = (fingers: string, measure: number): Comparison => ({
  kind: 'shape',
  at: caseOf(measure),
  shape: shapeOf(fingers),
})
const entry = (id: string, says: TasteSays, scope: TasteEntry['scope'] = { kind: 'always' }): TasteEntry => ({
  id,
  on: true,
  says,
  scope,
  from: 'hand',
  cases: [],
})

describe('what is noticed', () => {
  const doc = newTaste('t', 'My way')
  it('is a shape that was taken at two places, once it is not kept yet and was not turned down', () => {
    const once = withComparisons(doc, [took('320004', 1), took('320004', 1)])
    expect(noticesOf(once)).toEqual([])
    const twice = withComparisons(once, [took('320004', 5)])
    const [notice] = noticesOf(twice)
    expect(notice?.cases.map((c) => c.measure)).toEqual([1, 5])
    expect(noticesOf(withEntry(twice, entry('e', notice!.says)))).toEqual([])
    expect(noticesOf({ ...twice, declined: [notice!.key] })).toEqual([])
  })

  it('names the entry that newer corrections speak against', () => {
    const kept = withEntry(doc, entry('e', { kind: 'shape', shape: shapeOf('320004') }))
    const [notice] = noticesOf(withComparisons(kept, [took('210003', 3), took('210003', 4)]))
    expect(notice?.against?.id).toBe('e')
    expect(noticesOf(withComparisons(kept, [took('210003', 3), took('320004', 4)]))).toEqual([])
  })

  it('is a setting that was chosen for three tunes running', () => {
    const chose = (tune: string, value: string): Comparison => ({
      kind: 'habit',
      at: caseOf(1, tune),
      habit: { key: 'hand', value },
    })
    const two = withComparisons(doc, [chose('a', 'open'), chose('a', 'open'), chose('b', 'open')])
    expect(noticesOf(two)).toEqual([])
    const three = withComparisons(two, [chose('c', 'open')])
    const [notice] = noticesOf(three)
    expect(notice?.cases.map((c) => c.tune)).toEqual(['a', 'b', 'c'])
    const kept = withEntry(doc, entry('h', notice!.says))
    expect(habitsInForce(kept, { tune: 'd' })).toEqual([{ key: 'hand', value: 'open' }])
    expect(tasteInForce(kept, { tune: 'd' })).toBeUndefined()
    expect(noticesOf(withComparisons(three, [chose('d', 'free')]))).toEqual([])
    expect(readTaste(withEntry(three, entry('h', notice!.says)))).toBeTruthy()
    expect(() => readTaste(withComparisons(doc, [chose('a', 'upside down')]))).toThrow()
  })

  it('is a like that explains what was chosen', () => {
    const made = withComparisons(doc, choices(60, 3, cheapest({ open: -4 })))
    const [notice] = noticesOf(made)
    expect(notice?.says).toMatchObject({ kind: 'price', feature: 'open' })
    expect(notice!.cases.length).toBeGreaterThanOrEqual(3)
  })

  it('takes a thousand corrections, and keeps the last thousand', () => {
    const many = choices(1600, 9, cheapest({ open: -4, little: 3 }))
    const full = withComparisons(doc, many)
    expect(full.comparisons.length).toBeLessThanOrEqual(1000)
    expect(noticesOf(full).map((n) => (n.says as { feature?: TasteFeature }).feature)).toEqual(
      expect.arrayContaining(['open', 'little']),
    )
  })
})

describe('a taste', () => {
  const always = entry('a', { kind: 'price', feature: 'fill', price: 3 })
  const doc = [
    always,
    entry('b', { kind: 'price', feature: 'fill', price: -3 }, { kind: 'student', id: 's', name: 'S' }),
    entry('c', { kind: 'price', feature: 'fill', price: 6 }, { kind: 'tune', id: 'x', name: 'X' }),
  ].reduce(withEntry, newTaste('t', 'My way'))

  it('holds most where it is narrowest: for a tune, a student, always', () => {
    expect(tasteInForce(doc, { tune: 'y' })?.prices).toEqual({ fill: 3 })
    expect(tasteInForce(doc, { tune: 'y', student: 's' })?.prices).toEqual({ fill: -3 })
    expect(tasteInForce(doc, { tune: 'x', student: 's' })?.prices).toEqual({ fill: 6 })
    const off = { ...doc, entries: doc.entries.map((e) => ({ ...e, on: false })) }
    expect(tasteInForce(off, { tune: 'x' })).toBeUndefined()
  })

  it('comes back from its file as it was; a newer one and a broken one are refused in words', () => {
    const whole = withComparisons(doc, [
      took('320004', 1),
      ...choices(5, 2, cheapest({ open: -4 })),
      { kind: 'leftOut', at: caseOf(2) },
    ])
    expect(readTaste(JSON.parse(JSON.stringify(whole)))).toEqual(whole)
    expect(() => readTaste({ ...whole, version: 2 })).toThrow(/newer version/)
    expect(() =>
      readTaste({ ...whole, entries: [{ ...always, says: { kind: 'price', feature: 'fill', price: 400 } }] }),
    ).toThrow(/entries\[0\].says.price/)
    for (const odd of [null, 3, [], {}, { format: 'other' }]) expect(() => readTaste(odd)).toThrow()
  })

  it('has shapes that are their chord and that a hand holds', () => {
    expect(readTasteShape('G', '320003', '320004', setup)).toMatchObject({
      ok: true,
      shape: { frets: [3, 0, 0, 0, 2, 3] },
    })
    expect(readTasteShape('D/F#', '2 0 0 2 3 2', 'T 0 0 1 3 2', setup)).toMatchObject({ ok: true })
    expect(readTasteShape('G', '320004', '320004', setup)).toEqual({ ok: false, problem: 'chord' })
    expect(readTasteShape('G', '32000', '320004', setup)).toEqual({ ok: false, problem: 'unreadable' })
    expect(readTasteShape('G', '320003', '300004', setup)).toEqual({ ok: false, problem: 'unreadable' })
    expect(readTasteShape('G', '3 10 12 12 12 3', '1 2 3 3 3 4', setup).ok).toBe(false)
  })
})
