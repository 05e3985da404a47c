import { type Finger, type PlacedFinger, placedFingers } from '../../src/hand/index.ts'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { PressedPlace } from '../../src/document/index.ts'
import { handMove } from '../../src/lesson/index.ts'

const place = (finger: Finger, string: number, fret: number): PressedPlace => ({ finger, string, fret })
const on = (...pressed: PressedPlace[]) => placedFingers({ pressed })

const hands = fc
  .uniqueArray(
    fc.record({
      finger: fc.constantFrom<Finger>(1, 2, 3, 4, 'T'),
      string: fc.integer({ min: 1, max: 6 }),
      fret: fc.integer({ min: 1, max: 9 }),
    }),
    { selector: (p) => p.finger, maxLength: 5 },
  )
  .map((pressed) => placedFingers({ pressed }))

describe('what a hand does between two grips', () => {
  it('stays, slides, lands and lifts, finger by finger', () => {
    const from = on(place(1, 2, 1), place(2, 4, 2), place(3, 5, 3))
    const to = on(place(2, 4, 4), place(3, 5, 3), place(4, 1, 3))
    const move = handMove(from, to)
    const fingers = (list: readonly PlacedFinger[]) => list.map((f) => f.finger)
    expect([fingers(move.stays), fingers(move.slides), fingers(move.lands), move.lifts]).toEqual([
      [3],
      [2],
      [4],
      [1],
    ])
    expect(fingers(handMove([], from).lands)).toEqual([1, 2, 3])
  })

  it('a finger across strings is one finger; what waits for a pull-off is down too', () => {
    expect(on(place(1, 5, 2), place(1, 1, 2), place(3, 4, 4))).toEqual([
      { finger: 1, fret: 2, from: 1, to: 5 },
      { finger: 3, fret: 4, from: 4, to: 4 },
    ])
    expect(
      placedFingers({ pressed: [place(3, 2, 3)], ready: [place(1, 2, 1)] }).map((f) => f.finger),
    ).toEqual([1, 3])
    expect(placedFingers(undefined)).toEqual([])
  })

  it('accounts for every finger once, and following the move gives the new hand', () => {
    fc.assert(
      fc.property(hands, hands, (before, now) => {
        const { stays, slides, lands, lifts } = handMove(before, now)
        const named = [...[...stays, ...slides, ...lands].map((f) => f.finger), ...lifts]
        expect(new Set(named).size).toBe(named.length)
        const followed = new Map(before.map((f) => [f.finger, f]))
        for (const finger of lifts) followed.delete(finger)
        for (const f of [...slides, ...lands]) followed.set(f.finger, f)
        const order = (list: readonly PlacedFinger[]) =>
          [...list].sort((a, b) => String(a.finger).localeCompare(String(b.finger)))
        expect(order([...followed.values()])).toEqual(order(now))
        // What stays or slides was down before, on the same strings.
        for (const f of [...stays, ...slides])
          expect(before.some((b) => b.finger === f.finger && b.from === f.from && b.to === f.to)).toBe(true)
      }),
    )
  })
})
