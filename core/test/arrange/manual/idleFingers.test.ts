import { describe, expect, it } from 'vitest'
import { guitarSetup, setupOf, type Setup } from '../../../src/instrument/index.ts'
import { ticksAt, type Grip, type Level, type Style, type TuneDoc } from '../../../src/document/index.ts'
import { arranging, harmonyLine, refusalOf, wholeTune } from '../../../src/arrange/index.ts'
import { handFault, pressedOf } from '../../../src/hand/index.ts'
import { withoutIdleFingers } from '../../../src/arrange/manual/idleFingers.ts'
import { arrangedScore } from '../../support/score.ts'
import { strainMm } from '../../../src/hand/effort/handMoves.ts'
import { finish } from '../../../src/turns.ts'
import { scoreOfPassage } from '../../support/passage.ts'
import { timelineOf, type Layer } from '../../../src/document/index.ts'
import { CORPUS } from '../../support/tunes.ts'
import { PASSAGES } from './passages.ts'

type Place = Grip['pressed'][number]
const same = (a: Place, b: Place) => a.string === b.string && a.fret === b.fret && a.finger === b.finger
const has = (g: Grip | undefined, p: Place) => g?.pressed.some((q) => same(p, q)) ?? false

const nearer = (a: Place, b: Place) =>
  Math.abs(a.fret - b.fret) <= Math.abs(Number(a.finger) - Number(b.finger))

/**
 * What comes down without need, counted from the finished page: fingers that come down after the change of chord on a string
 * that does not sound before they leave; fingers that were lifted and come back under one chord, though they could have stayed.
 */
function needless(tune: TuneDoc, setup: Setup, layer: Layer, transposed: number) {
  const timeline = timelineOf(tune.measures)
  const at = (p: Grip['pos']) => ticksAt(timeline, p)
  const changes = harmonyLine(tune, timeline, setup.capo[0]!, transposed).map((h) => h.start)
  const grips = [...layer.grips].sort((a, b) => at(a.pos) - at(b.pos))
  const isChange = (i: number) =>
    i === 0 || changes.some((c) => c > at(grips[i - 1]!.pos) && c <= at(grips[i]!.pos))
  const struck = (string: number, from: number, to: number) =>
    layer.notes.flatMap((n) => {
      const own = [n.place, ...(n.graces ?? []).map((g) => g.place)].filter((p) => p.string === string)
      return at(n.pos) >= from && at(n.pos) < to ? own.map((p) => p.fret) : []
    })
  const end = (i: number) => (grips[i + 1] ? at(grips[i + 1]!.pos) : timeline.length)
  const strainOf = (places: readonly Place[]) => strainMm(setup, pressedOf(places))
  const [idle, back]: [string[], string[]] = [[], []]
  grips.forEach((g, i) => {
    if (isChange(i)) return
    for (const p of g.pressed) {
      if (has(grips[i - 1], p)) continue
      let k = i
      while (has(grips[k + 1], p)) k++
      const across = g.pressed.filter((q) => q.finger === p.finger && q.fret === p.fret)
      const sounds = grips
        .slice(i, k + 1)
        .flatMap((h) => [...across, ...h.pressed.filter((q) => q.finger === p.finger && q.fret === p.fret)])
        .some((q) => struck(q.string, at(g.pos), end(k)).includes(q.fret))
      if (!sounds) idle.push(`${g.id}: ${p.finger} on ${p.string}.${p.fret}`)
      // A finger that lies across comes back as a whole.
      const finger = g.pressed.filter((q) => q.finger === p.finger)
      const lay = (h: Grip) =>
        finger.every((q) => has(h, q)) &&
        h.pressed.filter((q) => q.finger === p.finger).length === finger.length
      let b = i - 1
      while (b >= 0 && !lay(grips[b]!) && !isChange(b)) b--
      if (b < 0 || !lay(grips[b]!)) continue
      const stays = grips.slice(b + 1, i).every((h, j) => {
        const busy = [...h.pressed, ...(h.ready ?? [])]
        return (
          finger.every(
            (q) =>
              busy.every((o) => o.string !== q.string && o.finger !== q.finger) &&
              struck(q.string, at(h.pos), end(b + 1 + j)).every((fret) => fret === q.fret),
          ) &&
          // One finger a fret, or with no more strain than before and behind.
          ((finger.every((q) => busy.every((o) => nearer(q, o))) &&
            busy.every((o) => busy.every((u) => nearer(o, u)))) ||
            strainOf([...busy, ...finger]) <=
              Math.max(strainOf(busy), strainOf(g.pressed), strainOf(grips[b]!.pressed))) &&
          handFault(setup, setup.player.spans, pressedOf([...busy, ...finger])) === undefined
        )
      })
      if (stays) back.push(`${g.id}: ${p.finger} on ${p.string}.${p.fret}`)
    }
  })
  return { idle, back }
}

describe('idle fingers', () => {
  const cases: [Style, Level, Setup][] = [
    ['melody-bass', 3, guitarSetup()],
    ['alternating-bass', 3, guitarSetup(2)],
    ['arpeggio', 5, guitarSetup()],
    ['chord-melody', 4, guitarSetup()],
    ['melody-bass', 2, setupOf('mandolin')],
  ]

  it.each(cases)(
    'none comes down in the middle of a chord for nothing, none is put back: %s, level %i',
    (style, level, setup) => {
      for (const tune of CORPUS.slice(0, 7)) {
        if (refusalOf(style, level, setup.instrument)) continue
        const { layer, plan } = finish(arranging(tune, setup, wholeTune(tune, style, level)))
        expect(needless(tune, setup, layer, plan.transposed), tune.title).toEqual({ idle: [], back: [] })
      }
    },
  )

  it('nor in a tab that is given', () => {
    for (const passage of PASSAGES) {
      const { tune, arrangement } = scoreOfPassage(passage)
      const found = needless(tune, arrangement.setup, arrangement.base, arrangement.transposed)
      expect(found, passage.name).toEqual({ idle: [], back: [] })
    }
  })
})

describe('fingers of one measure', () => {
  /** Grips with every second finger lifted in the middle of each measure, so that there is something to put back. */
  const restless = (grips: readonly Grip[]): readonly Grip[] =>
    grips.map((g, i) => (i % 3 === 1 ? { ...g, pressed: g.pressed.filter((_, k) => k % 2 === 1) } : g))

  it.each([0, 2, 5, 8])('of tune %i are tidied by what stands beside them alone', (t) => {
    const tune = CORPUS[t]!
    const { base, setup, transposed } = arrangedScore(tune, 'arpeggio', 3).arrangement
    const timeline = timelineOf(tune.measures)
    const harmony = harmonyLine(tune, timeline, setup.capo[0]!, transposed)
    const grips = restless(base.grips)
    const tidied = (layer: Layer, m: number) =>
      withoutIdleFingers(
        layer,
        () => setup,
        timeline,
        harmony,
        (at) => at >= timeline.starts[m]! && at < (timeline.starts[m + 1] ?? timeline.length),
      )
    let changed = 0
    tune.measures.forEach((measure, m) => {
      const inside = (g: Grip) => g.pos.measure === measure.id
      const [from, to] = [grips.findIndex(inside), grips.findLastIndex(inside)]
      if (from < 0) return
      const whole = tidied({ ...base, grips }, m)
      // One grip before tells what was down, two behind what comes back.
      const cut = tidied({ ...base, grips: grips.slice(Math.max(0, from - 1), to + 3) }, m)
      expect(cut.filter(inside)).toEqual(whole.filter(inside))
      expect(whole.filter((g) => !inside(g))).toEqual(grips.filter((g) => !inside(g)))
      changed += whole.filter((g, i) => g !== grips[i]).length
    })
    expect(changed).toBeGreaterThan(3)
  })
})
