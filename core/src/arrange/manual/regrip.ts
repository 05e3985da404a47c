import { ticksAt, type Timeline } from '../../document/form/timeline.ts'
import { handFault } from '../../hand/grip/handRules.ts'
import { placedPosition } from '../../hand/grip/position.ts'
import { pressedOf } from '../../hand/grip/pressed.ts'
import type { Grip, PressedPlace, Span, TabNote } from '../../document/tab.ts'
import type { Id } from '../../document/ids.ts'
import type { Pos } from '../../document/tune.ts'
import type { Setup } from '../../instrument/setup.ts'
import { gripId } from '../../document/noteIds.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import { reaching } from './reaching.ts'
import { mapInTurns, type Turns } from '../../turns.ts'
import { findingSoundings, soundingInTime, type SoundingNote } from './sounding.ts'

/**
 * Grips under a tab whose fingers are settled, for some measures: one at every onset. A grip that already holds what
 * sounds stays, with its shape and its reasons; another holds what sounds, and what a hammer-on or pull-off needs.
 */
export function* regripping(
  layer: {
    readonly notes: readonly TabNote[]
    readonly grips: readonly Grip[]
    readonly spans: readonly Span[]
  },
  timeline: Timeline,
  setup: Setup,
  measures: ReadonlySet<Id>,
  end: Pos,
): Turns<Grip[]> {
  const onsets = onsetsIn(layer.notes, timeline, measures)
  const times = [...onsets.keys()]
  const [first, last] = [least(times), -least(times.map((t) => -t))]
  const all = yield* findingSoundings(layer.notes, timeline, { from: first, to: last + 1 })
  const soundsAt = soundingInTime(all)
  const joins = joinsOf(layer.spans)
  const byId = new Map(layer.notes.map((n) => [n.id, n]))
  const [own, others] = [[] as Grip[], [] as Grip[]]
  for (const g of layer.grips) (measures.has(g.pos.measure) ? own : others).push(g)
  const known = new Map(own.map((g) => [ticksAt(timeline, g.pos), g]))
  yield
  const inOrder = [...onsets].sort(([a], [b]) => a - b)
  const fresh = yield* mapInTurns(
    inOrder,
    ([at, pos]) => {
      const sounding = soundsAt(at)
      const old = known.get(at)
      return old && holds(old, sounding, setup) ? old : gripFor(sounding, byId, joins, pos)
    },
    64,
  )
  return reaching([...others, ...withOwnIds(fresh, others)], timeline, end)
}

const least = (times: readonly Ticks[]): Ticks => times.reduce((a, b) => Math.min(a, b), Infinity)

/** From which note each is hammered on to, and to which each is pulled off. */
interface Joins {
  readonly hammeredFrom: ReadonlyMap<Id, Id>
  readonly pulledTo: ReadonlyMap<Id, Id>
}

const joinsOf = (spans: readonly Span[]): Joins => ({
  hammeredFrom: new Map(spans.flatMap((s) => (s.kind === 'hammer' ? [[s.to, s.from] as const] : []))),
  pulledTo: new Map(spans.flatMap((s) => (s.kind === 'pull' ? [[s.from, s.to] as const] : []))),
})

/** Grips with ids that no other has: a grip that was moved keeps the id of where it was made. */
function withOwnIds(fresh: readonly Grip[], others: readonly Grip[]): Grip[] {
  const taken = new Set(others.map((g) => g.id))
  return fresh.map((g) => {
    let id = g.id
    for (let i = 2; taken.has(id); i++) id = `${g.id}.${i}`
    taken.add(id)
    return id === g.id ? g : { ...g, id }
  })
}

function onsetsIn(notes: readonly TabNote[], timeline: Timeline, measures: ReadonlySet<Id>): Map<Ticks, Pos> {
  const onsets = new Map<Ticks, Pos>()
  for (const n of notes) if (measures.has(n.pos.measure)) onsets.set(ticksAt(timeline, n.pos), n.pos)
  return onsets
}

const pressing = (sounding: readonly SoundingNote[]): PressedPlace[] =>
  sounding.flatMap(({ note: { place, left } }) =>
    place.fret > 0 && left !== 0 ? [{ string: place.string, fret: place.fret, finger: left }] : [],
  )

/** True where a grip holds all that sounds, damps none of it, and can be held. */
function holds(grip: Grip, sounding: readonly SoundingNote[], setup: Setup): boolean {
  const down = pressing(sounding)
  if (sounding.some(({ note }) => note.graces !== undefined)) return false
  const has = (p: PressedPlace) =>
    grip.pressed.some((q) => q.string === p.string && q.fret === p.fret && q.finger === p.finger)
  const damped = sounding.some(({ note: { place } }) =>
    grip.pressed.some((q) => q.string === place.string && q.fret > (place.harmonic ? 0 : place.fret)),
  )
  return down.every(has) && !damped && !handFault(setup, setup.player.spans, pressedOf(grip.pressed))
}

function gripFor(
  sounding: readonly SoundingNote[],
  byId: ReadonlyMap<Id, TabNote>,
  joins: Joins,
  pos: Pos,
): Grip {
  const pressed = pressing(sounding)
  const ready = readyFor(sounding, byId, joins, pressed)
  return {
    id: gripId(pos),
    pos,
    until: pos,
    pressed,
    ...(ready.length > 0 ? { ready } : {}),
    position: placedPosition(pressed),
    costs: [],
  }
}

/** Fingers that are down beside those that sound: under a hammer-on, and where a pull-off goes to. */
function readyFor(
  sounding: readonly SoundingNote[],
  byId: ReadonlyMap<Id, TabNote>,
  { hammeredFrom, pulledTo }: Joins,
  pressed: readonly PressedPlace[],
): PressedPlace[] {
  return sounding.flatMap(({ note }) => {
    const under = hammeredFrom.get(note.id)
    const then = pulledTo.get(note.id)
    const short = (note.graces ?? []).flatMap(({ place, left }) =>
      left === 0 || pressed.some((p) => p.finger === left)
        ? []
        : [{ string: place.string, fret: place.fret, finger: left }],
    )
    const joined = [under, then].flatMap((id) => {
      const other = id === undefined ? undefined : byId.get(id)
      if (!other || other.place.fret === 0 || other.left === 0) return []
      if (pressed.some((p) => p.finger === other.left)) return []
      return [{ string: other.place.string, fret: other.place.fret, finger: other.left }]
    })
    return [...short, ...joined]
  })
}
