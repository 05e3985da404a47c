import { describe, expect, it } from 'vitest'
import { handFault } from '../../../src/hand/grip/handRules.ts'
import { refingering, type RefingerOrder } from '../../../src/arrange/manual/refinger.ts'
import { finish, ticksAt, timelineOf, type LeftFinger, type Score, type TabNote } from '../../../src/index.ts'
import { arrangedScore } from '../../support/score.ts'
import { CORPUS } from '../../support/tunes.ts'

/** Traditional tunes, long out of copyright, from memory. */
const scores = [0, 2, 4].map((i) => arrangedScore(CORPUS[i]!, 'melody-bass', 3))

const whole = ({ tune }: Required<Score>, more: Partial<RefingerOrder> = {}): RefingerOrder => ({
  from: 0,
  to: timelineOf(tune.measures).length,
  fixed: new Map(),
  keep: false,
  ...more,
})

function refinger(score: Required<Score>, notes: readonly TabNote[], order: RefingerOrder): TabNote[] {
  const { tune, arrangement } = score
  return finish(
    refingering(notes, arrangement.base.spans, timelineOf(tune.measures), arrangement.setup, order),
  )
}

const unfingered = (n: TabNote): TabNote => ({ ...n, left: 0 })

/** What sounds at each onset, by plain looking: each note from its moment until its string is struck again or it ends. */
function held({ tune }: Required<Score>, notes: readonly TabNote[]): TabNote[][] {
  const timeline = timelineOf(tune.measures)
  const start = (n: TabNote) => ticksAt(timeline, n.pos)
  const onsets = [...new Set(notes.map(start))].sort((a, b) => a - b)
  return onsets.map((at) =>
    notes.filter((n) => {
      if (start(n) > at || start(n) + n.dur.ticks <= at) return false
      return !notes.some((o) => o.place.string === n.place.string && start(o) > start(n) && start(o) <= at)
    }),
  )
}

describe('fingers found again', () => {
  it.each(scores)('leave every place as it is, and this hand can hold what sounds ($tune.title)', (score) => {
    const { base, setup } = score.arrangement
    const found = refinger(score, base.notes.map(unfingered), whole(score))
    expect(found.map((n) => n.place)).toEqual(base.notes.map((n) => n.place))
    for (const sounding of held(score, found)) {
      const fretted = sounding.filter((n) => n.place.fret > 0)
      for (const n of fretted) expect(n.left).not.toBe(0)
      const grip = fretted.flatMap((n) =>
        n.left === 0 || n.left === 'T'
          ? []
          : [{ string: n.place.string, fret: n.place.fret, finger: n.left }],
      )
      expect(handFault(setup, setup.player.spans, grip)).toBeUndefined()
      // One finger lies at one fret for as long as its notes sound.
      for (const a of grip) for (const b of grip) if (a.finger === b.finger) expect(a.fret).toBe(b.fret)
    }
  })

  it('what is settled stays, what stands before and after too, and finding again changes nothing', () => {
    let wished = 0
    for (const score of scores) {
      const { base } = score.arrangement
      const timeline = timelineOf(score.tune.measures)
      const [from, to] = [timeline.starts[1]!, timeline.starts[3]!]
      const inside = (n: TabNote) => ticksAt(timeline, n.pos) >= from && ticksAt(timeline, n.pos) < to
      const bare = base.notes.map((n) => (inside(n) ? unfingered(n) : n))
      const found = refinger(score, bare, whole(score, { from, to }))
      expect(found.filter((n) => !inside(n))).toEqual(base.notes.filter((n) => !inside(n)))
      expect(refinger(score, found, whole(score, { from, to, keep: true }))).toEqual(found)
      for (const note of found.filter((n) => inside(n) && n.place.fret > 0)) {
        const finger: LeftFinger = note.left === 3 ? 2 : 3
        const fixed = new Map([[note.id, finger]])
        const other = refinger(score, bare, whole(score, { from, to, fixed }))
        expect(other.find((n) => n.id === note.id)!.left).toBe(finger)
        wished++
      }
    }
    expect(wished).toBeGreaterThan(5)
  })
})
