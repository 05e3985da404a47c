import { present } from '../../invariant.ts'
import { timelineOf } from '../../document/form/timeline.ts'
import { placedPosition } from '../../hand/grip/position.ts'
import type { ArrangementDoc, Layer } from '../../document/arrangement.ts'
import type { Grip, PressedPlace, TabNote } from '../../document/tab.ts'
import type { Measure, TuneDoc } from '../../document/tune.ts'
import { beatLength, measureLength } from '../../music/time/metre.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import { onHeldShapes, plainly, struckTogether } from './layers.ts'
import type { TroubleSpot } from './troubleSpots.ts'

/**
 * Ways to practise a change alone: its two grips back and forth; the way of the one finger that travels farthest; the
 * measure's picking on one held shape; its picking on open strings.
 */
export const DRILLS = ['grips', 'shift', 'pattern', 'open'] as const
export type Drill = (typeof DRILLS)[number]

/** How often a drill is played in a row. */
export const DRILL_TIMES = 4

/** The drills that make sense for a change: nobody shifts where the hand stays. */
export function drillsFor({ before, after }: TroubleSpot): Drill[] {
  const grips = before.pressed.length > 0 && after.pressed.length > 0
  return DRILLS.filter((d) =>
    d === 'grips' ? grips : d === 'shift' ? traveller(before, after) !== undefined : true,
  )
}

/** A drill as a tune and a tab of their own, which can be drawn, printed, played and written like any other. */
export function drillOf(
  drill: Drill,
  spot: TroubleSpot,
  tune: TuneDoc,
  doc: ArrangementDoc,
): { readonly tune: TuneDoc; readonly arrangement: ArrangementDoc } {
  const source = tune.measures[spot.measure]!
  const two = drill === 'grips' || drill === 'shift'
  const measures = two
    ? [
        measureLike(source, 'd.0', measureLength(source.metre)),
        measureLike(source, 'd.1', measureLength(source.metre)),
      ]
    : [measureLike(source, 'd.0', source.length)]
  const last = measures.at(-1)!
  const own = measures.map((m) =>
    m === last ? { ...m, repeatEnd: DRILL_TIMES, barline: 'double' as const } : m,
  )
  own[0] = { ...own[0]!, repeatStart: true }
  const drilled: TuneDoc = {
    ...tune,
    id: `${tune.id}.drill`,
    measures: own,
    events: [],
    chords: [],
    tuplets: [],
    sections: [],
    tempos: [{ pos: { measure: own[0].id, tick: 0 }, bpm: startBpm(spot), stated: true }],
    pins: [],
  }
  const { abc: _, ...plain } = drilled
  const base =
    drill === 'grips'
      ? twoGrips(spot, own)
      : drill === 'shift'
        ? oneFinger(spot, own)
        : picking(drill, spot, tune, doc)
  return {
    tune: plain,
    arrangement: { ...doc, id: `${doc.id}.drill`, tuneId: plain.id, base, variants: [], goalBpm: spot.bpm },
  }
}

/** Share of a change's ceiling at which its drill begins. Common practice: well under what is possible; no source. */
const CALM = 0.6
const startBpm = ({ bpm }: TroubleSpot): number => Math.max(30, Math.round(bpm * CALM))

function measureLike(source: Measure, id: string, length: Ticks): Measure {
  const { segno: _, coda: __, fine: ___, jump: ____, ...plain } = source
  return { ...plain, id, length, repeatStart: false, repeatEnd: 1, barline: 'single', endings: [] }
}

/** Both grips in turn, on every beat of a measure each. */
function twoGrips({ before, after }: TroubleSpot, measures: readonly Measure[]): Layer {
  const held = [before, after].map((g, i) => gripAt(g.pressed, measures, i))
  const notes = held.flatMap((g, i) =>
    beatsOf(measures[i]!).flatMap((tick) => struckAt(g, measures[i]!, tick)),
  )
  return { notes, spans: [], grips: held, locks: [] }
}

/** The finger that travels, from where it was to where it must be, without the others. */
function oneFinger({ before, after }: TroubleSpot, measures: readonly Measure[]): Layer {
  const way = present(traveller(before, after))
  const held = way.map((p, i) => gripAt([p], measures, i))
  const notes = held.flatMap((g, i) =>
    beatsOf(measures[i]!).flatMap((tick) => struckAt(g, measures[i]!, tick)),
  )
  return { notes, spans: [], grips: held, locks: [] }
}

function picking(
  drill: 'pattern' | 'open',
  { measure }: TroubleSpot,
  tune: TuneDoc,
  doc: ArrangementDoc,
): Layer {
  const { id } = tune.measures[measure]!
  const here = <T extends { readonly pos: { readonly measure: string; readonly tick: Ticks } }>(x: T): T => ({
    ...x,
    pos: { ...x.pos, measure: 'd.0' },
  })
  const notes = doc.base.notes.filter((n) => n.pos.measure === id).map(here)
  const grips = doc.base.grips.filter((g) => g.pos.measure === id).map(here)
  const end = { measure: 'd.0', tick: tune.measures[measure]!.length }
  const reaching = grips.map((g, i): Grip => ({ ...g, until: grips[i + 1]?.pos ?? end }))
  const own: Layer = { notes, spans: [], grips: reaching, locks: [] }
  if (drill === 'pattern') return onHeldShapes(own, timelineOf([{ id: 'd.0', length: end.tick }]))
  return {
    ...own,
    notes: notes.map((n) => plainly(n, 0, 0)),
    grips: reaching.map((g) => {
      const { ready: _, ...plain } = g
      return { ...plain, pressed: [], position: 0 }
    }),
  }
}

/** The finger that is down in both grips and goes the farthest along the neck, in both its places. */
function traveller(before: Grip, after: Grip): readonly [PressedPlace, PressedPlace] | undefined {
  const ways = before.pressed.flatMap((p): [PressedPlace, PressedPlace][] => {
    const to = after.pressed.find((q) => q.finger === p.finger)
    return to && (to.fret !== p.fret || to.string !== p.string) ? [[p, to]] : []
  })
  return ways.sort((a, b) => far(b) - far(a))[0]
}
const far = ([a, b]: readonly [PressedPlace, PressedPlace]): number =>
  10 * Math.abs(a.fret - b.fret) + Math.abs(a.string - b.string)

function gripAt(pressed: Grip['pressed'], measures: readonly Measure[], i: number): Grip {
  const next = measures[i + 1]
  return {
    id: `g.d.${i}`,
    pos: { measure: measures[i]!.id, tick: 0 },
    until: next ? { measure: next.id, tick: 0 } : { measure: measures[i]!.id, tick: measures[i]!.length },
    pressed,
    position: placedPosition(pressed),
    costs: [],
  }
}

function beatsOf({ length, metre }: Measure): Ticks[] {
  const beats: Ticks[] = []
  for (let at = 0; at < length; at += beatLength(metre)) beats.push(at)
  return beats
}

/** A grip struck for a beat. */
function struckAt({ pressed }: Grip, { id, length, metre }: Measure, tick: Ticks): TabNote[] {
  const ticks = Math.min(beatLength(metre), length - tick)
  return struckTogether({ pressed, pos: { measure: id, tick } }, ticks, `${id}.${tick}`)
}
