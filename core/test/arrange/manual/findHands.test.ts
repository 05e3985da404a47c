import { describe, expect, it } from 'vitest'
import { withHands } from '../../../src/arrange/manual/findHands.ts'
import { handFault } from '../../../src/hand/grip/handRules.ts'
import { pressedOf } from '../../../src/hand/grip/pressed.ts'
import type { LeftFinger } from '../../../src/instrument/index.ts'
import { lockId, lockOf, type Layer, type Score, type TabNote } from '../../../src/document/index.ts'
import { arrangedScore } from '../../support/score.ts'
import { CORPUS } from '../../support/tunes.ts'

/** Traditional tunes, long out of copyright, from memory. */
const scores = [0, 2, 4].map((i) => arrangedScore(CORPUS[i]!, 'melody-bass', 3))

const every = ({ tune }: Required<Score>) => new Set(tune.measures.map((m) => m.id))
const find = (score: Required<Score>, layer: Layer, measures = every(score), keep = false): Layer =>
  withHands(layer, { ...score.arrangement, tune: score.tune }, measures, keep)

const unfingered = (layer: Layer): Layer => ({
  ...layer,
  grips: [],
  notes: layer.notes.map((n): TabNote => ({ ...n, left: 0 })),
})

describe('hands found for given places', () => {
  it.each(scores)('leave every place as it is, and this hand can hold each grip ($tune.title)', (score) => {
    const { base, setup } = score.arrangement
    const found = find(score, unfingered(base))
    expect(found.notes.map((n) => n.place)).toEqual(base.notes.map((n) => n.place))
    for (const n of found.notes) expect(n.left === 0).toBe(n.place.fret === 0)
    for (const grip of found.grips)
      expect(handFault(setup, setup.player.spans, pressedOf(grip.pressed))).toBeUndefined()
    // What is struck lies under the finger that the grip of its moment has there.
    for (const n of found.notes) {
      if (n.place.fret === 0 || n.place.harmonic) continue
      const grip = found.grips.find((g) => g.pos.measure === n.pos.measure && g.pos.tick === n.pos.tick)!
      expect(grip.pressed).toContainEqual({ string: n.place.string, fret: n.place.fret, finger: n.left })
    }
  })

  it('what is settled stays, what stands before and after too, and finding again changes nothing', () => {
    let asked = 0
    for (const score of scores) {
      const { base } = score.arrangement
      const inside = new Set(score.tune.measures.slice(1, 3).map((m) => m.id))
      const isInside = (x: { pos: { measure: string } }) => inside.has(x.pos.measure)
      const bare = {
        ...base,
        grips: base.grips.filter((g) => !isInside(g)),
        notes: base.notes.map((n): TabNote => (isInside(n) ? { ...n, left: 0 } : n)),
      }
      const found = find(score, bare, inside)
      expect(found.notes.filter((n) => !isInside(n))).toEqual(base.notes.filter((n) => !isInside(n)))
      const again = find(score, found, inside, true)
      expect(again.notes).toEqual(found.notes)
      expect(again.grips).toEqual(found.grips)
      for (const note of found.notes.filter((n) => isInside(n) && n.place.fret > 0)) {
        const finger: LeftFinger = note.left === 3 ? 2 : 3
        const locks = [lockOf('left', lockId('left', note.id), note.id, finger)]
        const other = find(score, { ...bare, locks }, inside)
        expect(other.notes.find((n) => n.id === note.id)!.left).toBe(finger)
        asked++
      }
    }
    expect(asked).toBeGreaterThan(5)
  })
})
