import { describe, expect, it } from 'vitest'
import { ticksAt, timelineOf } from '../../../src/document/index.ts'
import { pressedOf } from '../../../src/hand/index.ts'
import { handFault } from '../../../src/hand/grip/handRules.ts'
import { PASSAGES } from './passages.ts'
import { fingersOf, scoreOfPassage, tabOf } from '../../support/passage.ts'

const scores = PASSAGES.map((passage) => ({ passage, score: scoreOfPassage(passage) }))

describe('passages that a player has fingered', () => {
  it('are fingered so, or as well: nine fingers of ten', () => {
    let [all, same] = [0, 0]
    for (const { passage, score } of scores) {
      const found = fingersOf(passage, score)
      const agreeing = passage.fingers.map(
        (answer) => answer.split(' ').filter((finger, i) => finger === found[i]).length,
      )
      for (const answer of passage.fingers) expect(answer.split(' '), passage.name).toHaveLength(found.length)
      all += found.length
      same += Math.max(...agreeing)
      // No passage is fingered as nobody would.
      expect(Math.max(...agreeing) / found.length, `${passage.name}: ${found.join(' ')}`).toBeGreaterThan(0.7)
    }
    expect(scores.length).toBeGreaterThanOrEqual(40)
    expect(same / all).toBeGreaterThan(0.95)
  })

  it.each(scores)(
    'have no impossible hand, and keep a place under its finger: $passage.name',
    ({ score }) => {
      const { tune, arrangement } = score
      const { setup, base } = arrangement
      const timeline = timelineOf(tune.measures)
      for (const grip of base.grips)
        expect(handFault(setup, setup.player.spans, pressedOf(grip.pressed))).toBeUndefined()
      const inTime = [...base.notes].sort((a, b) => ticksAt(timeline, a.pos) - ticksAt(timeline, b.pos))
      inTime.forEach((n, i) => {
        const again = inTime[i + 1]
        const repeated = again?.place.string === n.place.string && again.place.fret === n.place.fret
        if (repeated) expect(again.left).toBe(n.left)
      })
    },
  )

  it('lift no finger only to put it back under one chord', () => {
    let held = 0
    for (const { passage, score } of scores) {
      // One chord, each string at one fret: nothing need ever move.
      const frets = new Map<string, Set<string>>()
      for (const place of passage.places.split(/[ +]/)) {
        const [string = '', fret = ''] = place.replace(/^[hps]/, '').split('.')
        frets.set(string, (frets.get(string) ?? new Set()).add(fret))
      }
      const chords = Object.keys(passage.chords ?? {}).length
      if (frets.size < 3 || chords > 1 || [...frets.values()].some((f) => f.size > 1)) continue
      const grips = score.arrangement.base.grips.map((g) =>
        pressedOf(g.pressed)
          .map((p) => `${p.string} ${p.fret} ${p.finger}`)
          .sort()
          .join(),
      )
      expect([...new Set(grips)], passage.name).toHaveLength(1)
      held++
    }
    expect(held).toBeGreaterThan(15)
  })

  it('are read from their tab as they stand', () => {
    for (const { passage, score } of scores) {
      const places = passage.places.split(' ').flatMap((s) => s.split('+'))
      const found = [...score.arrangement.base.notes].map((n) => `${n.place.string}.${n.place.fret}`).sort()
      expect(found, tabOf(passage)).toEqual(places.map((p) => p.replace(/^[hps]/, '')).sort())
    }
  })
})
