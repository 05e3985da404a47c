import { describe, expect, it } from 'vitest'
import { harmonyLine } from '../../../src/arrange/plan/harmonyLine.ts'
import { sameFingersBack } from '../../../src/arrange/manual/sameFingersBack.ts'
import { arranging, wholeTune } from '../../../src/arrange/index.ts'
import { guitarSetup } from '../../../src/instrument/index.ts'
import {
  lockId,
  lockOf,
  timelineOf,
  type Grip,
  type Layer,
  type Lock,
  type TabNote,
  USUAL_SCHOOL,
} from '../../../src/document/index.ts'
import { durationOf } from '../../../src/document/durationOf.ts'
import { handFault, pressedOf } from '../../../src/hand/index.ts'
import { finish } from '../../../src/turns.ts'
import { CORPUS, tuneOfMusic } from '../../support/tunes.ts'

const setup = guitarSetup()
const tune = tuneOfMusic('"F"c4|"C"c4|]')
const timeline = timelineOf(tune.measures)
const harmony = harmonyLine(tune, timeline, 0, 0)
const [first, second] = tune.measures.map((m) => m.id)

type Pressed = [string: number, fret: number, finger: 1 | 2 | 3 | 4]

/** A page of grips, a quarter each; what is pressed is plucked where it comes down. */
function page(grips: readonly (readonly Pressed[])[], locks: readonly Lock[] = []): Layer {
  const notes: TabNote[] = []
  const held = grips.map((pressed, i): Grip => {
    const pos = { measure: i < 4 ? first! : second!, tick: (i % 4) * 10_080 }
    const until = { measure: i + 1 < 4 ? first! : second!, tick: ((i + 1) % 4) * 10_080 }
    for (const [string, fret, finger] of pressed)
      if (!grips[i - 1]?.some((p) => p[0] === string && p[1] === fret))
        notes.push({
          id: `n${i}.${string}`,
          pos,
          dur: durationOf(10_080),
          role: 'melody',
          notationVoice: 0,
          place: { string, fret },
          left: finger,
          right: 'i',
          attack: 'pluck',
          optional: false,
        })
    return {
      id: `g${i}`,
      pos,
      until,
      pressed: pressed.map(([string, fret, finger]) => ({ string, fret, finger })),
      position: 1,
      costs: [],
    }
  })
  return { notes, grips: held, spans: [], locks }
}

const after = (layer: Layer) => sameFingersBack(layer, () => setup, timeline, harmony)
const fingersOn = ({ grips }: Pick<Layer, 'grips'>, string: number) =>
  grips.map((g) => g.pressed.find((p) => p.string === string)?.finger ?? 0)

/** Small F: the ring finger leaves string 4 and the little finger comes back to it. */
const LEAVES: readonly (readonly Pressed[])[] = [
  [
    [2, 1, 1],
    [3, 2, 2],
    [4, 3, 3],
  ],
  [
    [2, 1, 1],
    [3, 2, 2],
  ],
  [
    [3, 2, 2],
    [4, 3, 4],
  ],
]

describe('a finger that comes back', () => {
  it('is the one that left, on the page and over its note', () => {
    const found = after(page(LEAVES))
    expect(fingersOn(found, 4)).toEqual([3, 0, 3])
    expect(found.notes.find((n) => n.id === 'n2.4')!.left).toBe(3)
  })

  it('stays as it is where a hand has set it', () => {
    const found = after(page(LEAVES, [lockOf('left', lockId('left', 'n2.4'), 'n2.4', 4)]))
    expect(fingersOn(found, 4)).toEqual([3, 0, 4])
  })

  it('stays as it is in a locked measure', () => {
    const value = { style: 'melody-bass', level: 2, school: USUAL_SCHOOL, notes: [] } as const
    const found = after(page(LEAVES, [lockOf('measure', lockId('measure', first!), first!, value)]))
    expect(fingersOn(found, 4)).toEqual([3, 0, 4])
  })

  it('is another one where the first is needed meanwhile', () => {
    const busy: (readonly Pressed[])[] = [LEAVES[0]!, [[2, 3, 3]], LEAVES[2]!]
    expect(fingersOn(after(page(busy)), 4)).toEqual([3, 0, 4])
  })

  it('is another one under another chord', () => {
    const later: (readonly Pressed[])[] = [...LEAVES.slice(0, 2), LEAVES[1]!, LEAVES[1]!, LEAVES[2]!]
    expect(fingersOn(after(page(later)), 4)).toEqual([3, 0, 0, 0, 4])
  })

  /** Traditional tunes, long out of copyright, from memory. */
  it('is one that a hand can have there, and that its note says, in every tune', () => {
    for (const t of CORPUS.slice(0, 6)) {
      const { layer } = finish(arranging(t, setup, wholeTune(t, 'alternating-bass', 5)))
      for (const grip of layer.grips) {
        expect(handFault(setup, setup.player.spans, pressedOf(grip.pressed))).toBeUndefined()
        for (const n of layer.notes)
          if (
            n.pos.measure === grip.pos.measure &&
            n.pos.tick === grip.pos.tick &&
            n.left !== 0 &&
            !n.place.harmonic
          )
            expect(grip.pressed, `${t.title} ${n.id}`).toContainEqual(
              expect.objectContaining({ string: n.place.string, finger: n.left }),
            )
      }
    }
  })
})
