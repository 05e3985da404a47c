import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { assignPicking } from '../../../src/hand/picking/assignPicking.ts'
import { pickingStrain } from '../../../src/hand/picking/pickingPrice.ts'
import type { PickedNote, PickedOnset, PickingHand } from '../../../src/hand/picking/pickedOnset.ts'
import { QUARTER } from '../../../src/music/index.ts'

const FOUR = { num: 4, den: 4 } as const

function onsets(groups: readonly (readonly PickedNote[])[], seconds: number, metre = FOUR): PickedOnset[] {
  return groups.map((notes, i) => ({ notes, seconds, inMeasure: (i * QUARTER) / 2, metre }))
}

const picked = (text: readonly string[], hand: PickingHand, seconds = 0.3) =>
  assignPicking(
    onsets(
      text.map((t) =>
        t
          .split('+')
          .map((s): PickedNote => ({ string: Number(s), role: Number(s) >= 4 ? 'bass' : 'melody' })),
      ),
      seconds,
    ),
    hand,
  ).map((signs) => signs.join('+'))

const FINGERS: PickingHand = { school: 'fingerPerString', strokes: 'byBeat', strings: 6 }

describe('right-hand formulas as method books of the early 19th century print them (from memory)', () => {
  // Arpeggios over one held chord: the thumb on the bass, index, middle and ring on strings 3, 2 and 1.
  it.each([
    [
      ['5', '3', '2', '1'],
      ['p', 'i', 'm', 'a'],
    ],
    [
      ['5', '1', '2', '3'],
      ['p', 'a', 'm', 'i'],
    ],
    [
      ['5', '3', '2', '1', '2', '3'],
      ['p', 'i', 'm', 'a', 'm', 'i'],
    ],
    [
      ['4', '3', '2', '3', '1', '3', '2', '3'],
      ['p', 'i', 'm', 'i', 'a', 'i', 'm', 'i'],
    ],
    [
      ['5+1', '3', '2', '3'],
      ['p+a', 'i', 'm', 'i'],
    ],
    [
      ['6', '3+2+1', '3+2+1'],
      ['p', 'i+m+a', 'i+m+a'],
    ],
  ])('%j is picked %j', (strings, signs) => {
    expect(picked(strings, FINGERS)).toEqual(signs)
  })

  it('the thumb takes both basses of an alternating bass, the fingers the tune', () => {
    expect(picked(['6+2', '4', '5+1', '4+2'], FINGERS)).toEqual(['p+m', 'p', 'p+a', 'p+m'])
  })
})

describe('other schools', () => {
  it('thumb and index: the index takes every treble and brushes neighbours, the thumb the basses', () => {
    const hand: PickingHand = { school: 'thumbAndIndex', strokes: 'byBeat', strings: 6 }
    expect(picked(['5', '2', '1', '3'], hand)).toEqual(['p', 'i', 'i', 'i'])
    expect(picked(['5+2+1'], hand)).toEqual(['p+i+i'])
    const used = new Set(picked(['6', '3', '2', '4+1', '2', '1'], hand).flatMap((s) => s.split('+')))
    expect([...used].sort()).toEqual(['i', 'p'])
  })

  it('pick and fingers: the pick takes the basses with down strokes, middle and ring the trebles', () => {
    const hand: PickingHand = { school: 'pickAndFingers', strokes: 'byBeat', strings: 6 }
    const signs = picked(['5', '2', '1', '4+1'], hand).flatMap((s) => s.split('+'))
    expect(signs).toEqual(['down', 'm', 'a', 'down', 'a'])
  })

  it('a flat pick by the beat goes down on it and up on the "and"; down down down-up down-up in eighths (common practice, no source)', () => {
    const hand: PickingHand = { school: 'flatPick', strokes: 'byBeat', strings: 6 }
    expect(picked(['4', '4', '3', '3', '2', '2', '1', '1'], hand)).toEqual([
      'down',
      'up',
      'down',
      'up',
      'down',
      'up',
      'down',
      'up',
    ])
    const at = [0, 2, 4, 5, 6, 7].map((eighth): PickedOnset => ({
      notes: [{ string: 3, role: 'melody' }],
      seconds: 0.3,
      inMeasure: (eighth * QUARTER) / 2,
      metre: FOUR,
    }))
    expect(assignPicking(at, hand).flat()).toEqual(['down', 'down', 'down', 'up', 'down', 'up'])
  })

  it('a jig picked by the beat falls on both of its beats', () => {
    const jig = Array.from({ length: 6 }, (_, i): PickedOnset => ({
      notes: [{ string: 2, role: 'melody' }],
      seconds: 0.2,
      inMeasure: (i * QUARTER) / 2,
      metre: { num: 6, den: 8 },
    }))
    const hand: PickingHand = { school: 'flatPick', strokes: 'byBeat', strings: 6 }
    expect(assignPicking(jig, hand).flat()).toEqual(['down', 'up', 'down', 'down', 'up', 'down'])
  })

  it('strict alternation never plays two strokes of one direction running, whatever the rhythm', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 6 }), { minLength: 2, maxLength: 40 }),
        fc.nat(3),
        (strings, off) => {
          const list = strings.map((string, i): PickedOnset => ({
            notes: [{ string, role: 'melody' }],
            seconds: 0.1 + 0.05 * ((i * 7) % 5),
            inMeasure: ((i + off) * QUARTER) / 4,
            metre: FOUR,
          }))
          const signs = assignPicking(list, { school: 'flatPick', strokes: 'alternate', strings: 6 }).flat()
          signs.forEach((s, i) => i > 0 && expect(s).not.toBe(signs[i - 1]))
        },
      ),
    )
  })

  it('says what is too much for a hand: skipped strings inside a stroke, notes beyond the fingers', () => {
    expect(pickingStrain('flatPick', [5, 2])).toEqual({ gaps: 2, tooMany: 0 })
    expect(pickingStrain('flatPick', [3, 2, 1])).toEqual({ gaps: 0, tooMany: 0 })
    expect(pickingStrain('fingerPerString', [6, 4, 3, 2, 1])).toEqual({ gaps: 0, tooMany: 1 })
    expect(pickingStrain('pickAndFingers', [6, 3, 2, 1])).toEqual({ gaps: 0, tooMany: 1 })
    expect(pickingStrain('thumbAndIndex', [5, 3, 1])).toEqual({ gaps: 1, tooMany: 0 })
  })
})
