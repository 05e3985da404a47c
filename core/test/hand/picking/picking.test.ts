import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { ALTERNATION_S } from '../../../src/hand/picking/assignFingers.ts'
import { assignPicking } from '../../../src/hand/picking/assignPicking.ts'
import type { PickedOnset, PickingHand } from '../../../src/hand/picking/pickedOnset.ts'

const PLACE = { inMeasure: 0, metre: { num: 4, den: 4 } } as const
const HAND: PickingHand = { school: 'fingerPerString', strokes: 'byBeat', strings: 6 }

const melody = (string: number, seconds: number): PickedOnset => ({
  notes: [{ string, role: 'melody' }],
  seconds,
  ...PLACE,
})

describe('the picking hand', () => {
  it('gives each treble string its finger: i on 3, m on 2, a on 1, p on the basses (common practice, no source)', () => {
    expect(
      assignPicking(
        [3, 2, 1].map((s) => melody(s, 1)),
        HAND,
      ).flat(),
    ).toEqual(['i', 'm', 'a'])
    expect(
      assignPicking(
        [6, 5, 4].map((string) => ({ notes: [{ string, role: 'bass' }], seconds: 1, ...PLACE })),
        HAND,
      ).flat(),
    ).toEqual(['p', 'p', 'p'])
  })

  it('never uses one finger twice running on a fast repeated string', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 3 }),
        fc.integer({ min: 2, max: 16 }),
        fc.double({ min: 0.06, max: ALTERNATION_S - 0.01, noNaN: true }),
        (string, n, seconds) => {
          const fingers = assignPicking(
            Array.from({ length: n }, () => melody(string, seconds)),
            HAND,
          ).flat()
          fingers.forEach((f, i) => i > 0 && expect(f).not.toBe(fingers[i - 1]))
        },
      ),
    )
  })

  it('plucks two strings again and again with the same fingers, at any speed that a hand plucks as a whole', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 5 }),
        fc.integer({ min: 2, max: 12 }),
        fc.double({ min: 0.15, max: 1, noNaN: true }),
        (string, n, seconds) => {
          const pair = {
            ...melody(string, seconds),
            notes: [string + 1, string].map((s) => ({ string: s, role: 'harmony' as const })),
          }
          const hands = assignPicking(
            Array.from({ length: n }, () => pair),
            HAND,
          )
          expect(new Set(hands.map((h) => h.join(' ')))).toHaveLength(1)
        },
      ),
    )
  })

  it('keeps one finger on a slow repeated string', () => {
    expect(
      new Set(
        assignPicking(
          Array.from({ length: 5 }, () => melody(2, 0.8)),
          HAND,
        ).flat(),
      ),
    ).toEqual(new Set(['m']))
  })

  it('plucks strings sounded together with different fingers in the order of the strings, thumb on the bass', () => {
    const order = ['p', 'i', 'm', 'a']
    fc.assert(
      fc.property(
        fc.array(fc.uniqueArray(fc.integer({ min: 1, max: 6 }), { minLength: 1, maxLength: 3 }), {
          minLength: 1,
          maxLength: 12,
        }),
        (chords) => {
          const onsets = chords.map((strings): PickedOnset => {
            const sorted = [...strings].sort((a, b) => b - a)
            return {
              seconds: 0.3,
              ...PLACE,
              notes: sorted.map((string, i) => ({
                string,
                role: i === 0 && sorted.length > 1 && string >= 4 ? 'bass' : 'melody',
              })),
            }
          })
          const hands = assignPicking(onsets, HAND)
          onsets.forEach((o, t) => {
            const ranks = o.notes.map((_, i) => order.indexOf(hands[t]![i]!))
            ranks.forEach((r, i) => {
              if (i > 0) expect(r).toBeGreaterThan(ranks[i - 1]!)
              if (o.notes[i]!.role === 'bass') expect(hands[t]![i]).toBe('p')
            })
          })
        },
      ),
    )
  })
})
