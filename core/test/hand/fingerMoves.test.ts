import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { fingerMoves, placedFingers, type Finger, type PlacedFinger } from '../../src/hand/index.ts'
import { moveKind, shareString } from '../../src/hand/moves/fingerMoves.ts'

const span = fc
  .tuple(fc.integer({ min: 1, max: 12 }), fc.integer({ min: 1, max: 6 }), fc.integer({ min: 0, max: 5 }))
  .map(([fret, from, more]) => ({ fret, from, to: Math.min(6, from + more) }))
const hand = fc
  .uniqueArray(fc.tuple(fc.constantFrom<Finger>(1, 2, 3, 4, 'T'), span), {
    selector: ([finger]) => finger,
  })
  .map((list) => list.map(([finger, at]): PlacedFinger => ({ finger, ...at })))
const strings = ({ from, to }: { from: number; to: number }) =>
  Array.from({ length: to - from + 1 }, (_, i) => from + i)

describe('what a finger does', () => {
  it.each([
    ['keeps its place', [3, 2, 2], [3, 2, 2], 'stay'],
    ['slides along its string', [3, 2, 2], [5, 2, 2], 'slide'],
    ['slides with its barre', [1, 1, 6], [3, 1, 6], 'slide'],
    ['is laid across', [1, 2, 2], [1, 1, 6], 'roll'],
    ['tips over to the next string', [5, 3, 3], [5, 2, 2], 'roll'],
    ['jumps two strings at its fret', [5, 4, 4], [5, 2, 2], 'hop'],
    ['goes to another string and fret', [2, 3, 3], [3, 2, 2], 'hop'],
    ['goes up with a barre that it opens', [1, 1, 6], [3, 1, 1], 'hop'],
  ] as const)('%s', (_, [fret, from, to], [fret2, from2, to2], kind) => {
    expect(moveKind({ fret, from, to }, { fret: fret2, from: from2, to: to2 })).toBe(kind)
  })

  it('is the same kind of move on the way back, and follows from frets and strings', () => {
    fc.assert(
      fc.property(span, span, (a, b) => {
        const kind = moveKind(a, b)
        expect(moveKind(b, a)).toBe(kind)
        const [x, y] = [strings(a), strings(b)]
        const near = x.some((s) => y.some((t) => Math.abs(s - t) <= 1))
        expect(shareString(a, b)).toBe(x.some((s) => y.includes(s)))
        expect(kind).toBe(
          a.fret !== b.fret
            ? x.join() === y.join()
              ? 'slide'
              : 'hop'
            : x.join() === y.join()
              ? 'stay'
              : near
                ? 'roll'
                : 'hop',
        )
      }),
    )
  })

  it('names every finger once, and says where it was and is', () => {
    fc.assert(
      fc.property(hand, hand, (before, now) => {
        const moves = fingerMoves(before, now)
        const all = new Set([...before, ...now].map((f) => f.finger))
        expect(moves.map((m) => m.finger).sort()).toEqual([...all].sort())
        expect(moves.flatMap((m) => m.now ?? [])).toEqual(now)
        for (const m of moves) expect(m.before).toEqual(before.find((f) => f.finger === m.finger))
      }),
    )
  })

  it('reads a grip place by place, with the fingers that wait beneath', () => {
    fc.assert(
      fc.property(hand, (fingers) => {
        const places = fingers.flatMap(({ finger, fret, from, to }) =>
          strings({ from, to }).map((string) => ({ finger, fret, string })),
        )
        const [pressed, ready] = [places.slice(1), places.slice(0, 1)]
        expect(placedFingers({ pressed, ready }).map((f) => ({ ...f }))).toEqual(
          [...fingers].sort((a, b) => (a.finger === 'T' ? 5 : a.finger) - (b.finger === 'T' ? 5 : b.finger)),
        )
      }),
    )
  })
})
