import { BAR_FINGER } from '../../document/barNotes.ts'
import { knownIn } from '../../invariant.ts'
import type { Timeline } from '../../document/form/timeline.ts'
import type { Id } from '../../document/ids.ts'
import { gripId } from '../../document/noteIds.ts'
import type { Grip, PressedPlace, Span, TabNote } from '../../document/tab.ts'
import type { TuneDoc } from '../../document/tune.ts'
import { holdSame, leftFinger, type Pressed } from '../../hand/grip/pressed.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import type { HandState } from './handStates.ts'
import type { Moment } from './moments.ts'
import { mapInTurns, type Turns } from '../../turns.ts'

/**
 * The grips of a found hand, one a moment. A grip on the page that holds the same stays, with its shape and its reasons.
 * @param onPage grips on the page by their time
 */
export function* makingGrips(
  layer: { readonly notes: readonly TabNote[]; readonly spans: readonly Span[] },
  held: readonly { readonly moment: Moment; readonly state: HandState }[],
  tune: TuneDoc,
  { starts }: Timeline,
  onPage: ReadonlyMap<Ticks, Grip>,
): Turns<Grip[]> {
  const joins = joinsOf(layer.spans)
  const byId = new Map(layer.notes.map((n) => [n.id, n]))
  let bar: readonly PressedPlace[] = []
  let down: readonly PressedPlace[] = []
  return yield* mapInTurns(
    held,
    ({ moment, state }) => {
      const pos = { measure: tune.measures[moment.measure]!.id, tick: moment.at - starts[moment.measure]! }
      const found = state.pressed.map(placeOf)
      bar = barAcross(moment, found, bar)
      const pressed = [...found.filter((p) => !bar.some((b) => b.string === p.string)), ...bar]
      const sounding = moment.sounding.map((s) => ({ ...s, note: knownIn(byId, s.note.id) }))
      const ready = readyFor({ sounding, at: moment.at }, byId, joins, pressed, down)
      down = [...pressed, ...ready]
      const old = onPage.get(moment.at)
      if (old && holdSame(old.pressed, pressed) && holdSame(old.ready ?? [], ready)) return old
      return {
        id: gripId(pos),
        pos,
        until: pos,
        pressed,
        ...(ready.length > 0 ? { ready } : {}),
        position: state.position,
        ...(state.shape?.name ? { shape: state.shape.name } : {}),
        costs: [],
      }
    },
    128,
  )
}

/**
 * Where the bottleneck lies at a moment, none where it is lifted. It keeps its strings as it goes along one of them, and where
 * it stays at its fret, as long as none of them sounds otherwise.
 */
function barAcross(
  { sounding }: Moment,
  pressed: readonly PressedPlace[],
  before: readonly PressedPlace[],
): readonly PressedPlace[] {
  const onBar = sounding.filter((s) => s.bar)
  const own = pressed.filter(
    (p) => p.finger === BAR_FINGER && onBar.some((s) => s.note.place.string === p.string),
  )
  const [first] = own
  if (!first) return []
  const { fret } = first
  const goesOn = own.some((p) => before.some((b) => b.string === p.string)) || before[0]?.fret === fret
  const free = (p: PressedPlace) =>
    !sounding.some((s) => !s.bar && s.note.place.string === p.string) &&
    !pressed.some((q) => q.string === p.string)
  const kept = goesOn ? before.filter(free) : []
  const across = [...own, ...kept.map((p) => ({ ...p, fret }))].sort((a, b) => a.string - b.string)
  const [top, low] = [across[0]!.string, across.at(-1)!.string]
  // What lies between the outer strings is under it too: an open string there parts it.
  return across.length === low - top + 1 ? across : own
}

const placeOf = ({ string, fret, finger }: Pressed): PressedPlace => ({
  string,
  fret,
  finger: leftFinger(finger) as PressedPlace['finger'],
})

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
export function withOwnIds(fresh: readonly Grip[], others: readonly Grip[]): Grip[] {
  const taken = new Set(others.map((g) => g.id))
  return fresh.map((g) => {
    let id = g.id
    for (let i = 2; taken.has(id); i++) id = `${g.id}.${i}`
    taken.add(id)
    return id === g.id ? g : { ...g, id }
  })
}

/** Fingers that are down beside those that sound: under a hammer-on, and where a pull-off goes to. */
function readyFor(
  { sounding, at }: Pick<Moment, 'sounding' | 'at'>,
  byId: ReadonlyMap<Id, TabNote>,
  { hammeredFrom, pulledTo }: Joins,
  pressed: readonly PressedPlace[],
  before: readonly PressedPlace[],
): PressedPlace[] {
  const open = sounding.flatMap(({ note: { place } }) => (place.fret === 0 ? [place.string] : []))
  return sounding.flatMap(({ note, start }) => {
    const under = hammeredFrom.get(note.id)
    const then = pulledTo.get(note.id)
    const short = (note.graces ?? []).flatMap(({ place, left }) =>
      left === 0 || pressed.some((p) => p.finger === left)
        ? []
        : [{ string: place.string, fret: place.fret, finger: left }],
    )
    const joined = [under, then].flatMap((id, i) => {
      const other = id === undefined ? undefined : byId.get(id)
      if (!other || other.place.fret === 0 || other.left === 0) return []
      const { string, fret } = other.place
      const own = pressed.filter((p) => p.finger === other.left)
      // What was hammered holds its string by itself afterwards: its lower finger stays until it goes elsewhere.
      const stayed = before.some((p) => p.string === string && p.fret === fret && p.finger === other.left)
      if (i === 0 && start < at && (own.length > 0 || !stayed)) return []
      // A finger that is down at this fret lies across, if no open string sounds between; one at another cannot be here too.
      const parted = (p: PressedPlace) =>
        open.some((s) => s > Math.min(p.string, string) && s < Math.max(p.string, string))
      if (own.some((p) => p.fret !== fret || p.string === string || parted(p))) return []
      return [{ string, fret, finger: other.left }]
    })
    return [...short, ...joined]
  })
}
