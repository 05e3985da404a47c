import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { movesOf, secondsOfOrder, setOrder, type SetTune } from '@velvet-porch/core/studio'

/** Tunings from memory: standard, one string lower, open G; a mandolin's fifths. */
const TUNINGS = [
  [64, 59, 55, 50, 45, 40],
  [64, 59, 55, 50, 45, 38],
  [62, 59, 55, 50, 43, 38],
]
const MANDOLIN = [76, 69, 62, 55]

const tune = (id: string, tuning: number, capo: number, mandolin = false): SetTune =>
  mandolin
    ? { id, minutes: 3, kind: 'mandolin', tuning: MANDOLIN, capo: MANDOLIN.map(() => capo) }
    : { id, minutes: 3, kind: 'guitar', tuning: TUNINGS[tuning]!, capo: TUNINGS[tuning]!.map(() => capo) }

const someTune = fc
  .tuple(fc.nat(2), fc.constantFrom(0, 0, 2, 5), fc.boolean())
  .map(([tuning, capo, mandolin]) => ({ tuning, capo, mandolin }))
const someSet = (most: number) =>
  fc
    .array(someTune, { minLength: 1, maxLength: most })
    .map((all) => all.map((t, i) => tune(`t${i}`, t.tuning, t.capo, t.mandolin)))

function everyOrder<T>(items: readonly T[]): T[][] {
  if (items.length === 0) return [[]]
  return items.flatMap((item, i) => everyOrder(items.toSpliced(i, 1)).map((rest) => [item, ...rest]))
}

describe('the order of a set', () => {
  it('costs no more than any other, by trying all of them', () => {
    fc.assert(
      fc.property(someSet(6), (tunes) => {
        const least = Math.min(...everyOrder(tunes).map(secondsOfOrder))
        const found = setOrder(tunes)
        expect(found.seconds).toBe(least)
        expect(found.exact).toBe(true)
      }),
      { numRuns: 60 },
    )
  })

  it('is the best of all 40,320 orders of eight tunes', () => {
    const tunes = [
      tune('a', 0, 0),
      tune('b', 2, 2),
      tune('c', 0, 2, true),
      tune('d', 1, 0),
      tune('e', 2, 0),
      tune('f', 0, 5),
      tune('g', 0, 0, true),
      tune('h', 1, 2),
    ]
    expect(setOrder(tunes).seconds).toBe(Math.min(...everyOrder(tunes).map(secondsOfOrder)))
  })

  it('opens and closes with what the teacher wants, at the least that this costs', () => {
    fc.assert(
      fc.property(someSet(6), fc.nat(5), fc.nat(5), (tunes, a, b) => {
        const first = tunes[a % tunes.length]!.id
        const last = tunes[b % tunes.length]!.id
        fc.pre(first !== last)
        const found = setOrder(tunes, { first, last })
        expect(found.order[0]!.id).toBe(first)
        expect(found.order.at(-1)!.id).toBe(last)
        const allowed = everyOrder(tunes).filter((o) => o[0]!.id === first && o.at(-1)!.id === last)
        expect(found.seconds).toBe(Math.min(...allowed.map(secondsOfOrder)))
      }),
      { numRuns: 40 },
    )
  })

  it('has every tune once, however many there are, and never costs more than the order that was given', () => {
    fc.assert(
      fc.property(someSet(30), (tunes) => {
        const found = setOrder(tunes)
        expect(found.order.map((t) => t.id).sort()).toEqual(tunes.map((t) => t.id).sort())
        expect(found.seconds).toBeLessThanOrEqual(secondsOfOrder(tunes))
      }),
      { numRuns: 25 },
    )
  })

  it('is exact for forty tunes of few setups, and says where it is not', () => {
    const few = Array.from({ length: 40 }, (_, i) => tune(`t${i}`, i % 3, (i % 2) * 2))
    expect(setOrder(few)).toMatchObject({ exact: true })
    const many = Array.from({ length: 14 }, (_, i) => tune(`t${i}`, i % 3, i))
    const found = setOrder(many)
    expect(found.exact).toBe(false)
    expect(found.seconds).toBeLessThan(secondsOfOrder(many))
  })

  it('says what has to be done before each tune; an instrument is found again as it was left', () => {
    const moves = movesOf([tune('a', 1, 2), tune('b', 0, 0, true), tune('c', 0, 2)])
    expect(moves[0]).toEqual([])
    expect(moves[1]).toEqual([{ kind: 'instrument', to: 'mandolin' }])
    expect(moves[2]).toEqual([
      { kind: 'instrument', to: 'guitar' },
      { kind: 'retune', string: 6, from: 38, to: 40 },
    ])
  })

  it('opens with a tune that is said to open and to close', () => {
    const tunes = [tune('a', 0, 0), tune('b', 1, 0), tune('c', 2, 2)]
    const found = setOrder(tunes, { first: 'b', last: 'b' })
    expect(found.order[0]!.id).toBe('b')
    expect(found.order).toHaveLength(3)
  })

  it('of twelve setups on three instruments is found', () => {
    const many = Array.from({ length: 8 }, (_, i) => tune(`g${i}`, i % 3, i))
    const fifths = Array.from({ length: 4 }, (_, i) => tune(`m${i}`, 0, i, true))
    const found = setOrder([...many, ...fifths])
    expect(found.exact).toBe(true)
    // One change of the instrument is enough.
    expect(found.moves.flat().filter((m) => m.kind === 'instrument')).toHaveLength(1)
  })

  it('of one setup alone is the order that was given', () => {
    const same = ['d', 'a', 'c'].map((id) => tune(id, 0, 0))
    expect(setOrder(same).order.map((t) => t.id)).toEqual(['d', 'a', 'c'])
  })
})
