import type { Timeline } from '../../document/form/timeline.ts'
import { fingeringsOf } from '../../hand/grip/fingering.ts'
import { fingerNumber } from '../../hand/grip/pressed.ts'
import { isArrival, type Span, type TabNote } from '../../document/tab.ts'
import type { Id } from '../../document/ids.ts'
import type { LeftFinger } from '../../instrument/hand.ts'
import type { Setup } from '../../instrument/setup.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import { graceFinger, leavesRoomForGraces } from './graceFinger.ts'
import { eachInTurns, mapInTurns, type Turns } from '../../turns.ts'
import { findingSoundings, soundingInTime, type SoundingNote } from './sounding.ts'

/** Fingerings of one onset that are weighed. */
const MOST = 40

/** Prices in the unit of a fingering's own cost. Common practice, no source. */
const PRICE = {
  /** A finger other than the one that stands on the page, where that is to be kept. */
  changed: 4,
  /** A held note taken over by another finger. */
  exchanged: 60,
  /** A finger to another fret, for each; to another string, for each. */
  fret: 0.6,
  string: 0.35,
  /** A slide, bend or release that does not stay on its finger; a hammer-on or pull-off that does. */
  joined: 40,
  /** Nothing that this hand can hold. */
  impossible: 400,
}

/** Where fingers are to be found anew, and what of it is settled. */
export interface RefingerOrder {
  /** Written time, the end exclusive. */
  readonly from: Ticks
  readonly to: Ticks
  /** Fingers that were set by hand, by note. */
  readonly fixed: ReadonlyMap<Id, LeftFinger>
  /** True where the fingers on the page are kept as far as the hand allows. */
  readonly keep: boolean
}

interface State {
  /** By string, string 1 first; 0 where no finger presses. */
  readonly fingers: readonly LeftFinger[]
  readonly cost: number
}

interface Onset {
  readonly at: Ticks
  readonly sounding: readonly SoundingNote[]
  readonly states: readonly State[]
}

/**
 * The fretting fingers of a tab whose places are given: exact dynamic programming over the onsets of a stretch. Each
 * state is a way to hold everything that sounds; a held note keeps its finger; what stands before the stretch stays.
 * Where no hand can hold what is written, the fingers stay as they were, for the audit to say.
 */
export function* refingering(
  notes: readonly TabNote[],
  spans: readonly Span[],
  timeline: Timeline,
  setup: Setup,
  order: RefingerOrder,
): Turns<TabNote[]> {
  const all = yield* findingSoundings(notes, timeline, order)
  const times = [
    ...new Set(all.filter((s) => s.start >= order.from && s.start < order.to).map((s) => s.start)),
  ]
  yield
  const soundsAt = soundingInTime(all)
  const onsets = yield* mapInTurns(
    times,
    (at): Onset => {
      const sounding = soundsAt(at)
      return { at, sounding, states: statesOf(setup, sounding, order) }
    },
    32,
  )
  if (onsets.length === 0) return [...notes]
  const joinedFrom = new Map(spans.map((s) => [s.to, s.from]))
  const path = yield* cheapest(onsets, joinedFrom, notes, setup.instrument.strings)
  yield
  const fingerOf = new Map<Id, LeftFinger>()
  yield* eachInTurns(onsets, ({ at, sounding }, t) => {
    for (const s of sounding)
      if (s.start === at) fingerOf.set(s.note.id, path[t]!.fingers[s.note.place.string - 1]!)
  })
  return yield* mapInTurns(
    notes,
    (n) => {
      const left = fingerOf.get(n.id)
      return left === undefined || left === n.left || n.attack === 'bottle' ? n : withFinger(n, left)
    },
    2048,
  )
}

function withFinger(note: TabNote, left: LeftFinger): TabNote {
  const { graces } = note
  if (!graces) return { ...note, left }
  const own = { place: note.place, left }
  return { ...note, left, graces: graces.map((g) => ({ ...g, left: graceFinger(own, g.place.fret) })) }
}

function statesOf(setup: Setup, sounding: readonly SoundingNote[], order: RefingerOrder): State[] {
  const { strings } = setup.instrument
  const frets: (number | null)[] = Array.from({ length: strings }, () => null)
  for (const { note } of sounding) frets[note.place.string - 1] = note.place.fret
  const fixed = (s: SoundingNote): LeftFinger | undefined =>
    order.fixed.get(s.note.id) ?? (s.start < order.from ? s.note.left : undefined)
  const changes = (fingers: readonly LeftFinger[]) =>
    order.keep
      ? sounding.filter(({ note }) => note.left !== 0 && fingers[note.place.string - 1] !== note.left).length
      : 0
  const possible = fingeringsOf(setup, frets, setup.player, MOST)
    .filter(({ fingers }) =>
      sounding.every((s) => {
        const own = fixed(s)
        return own === undefined || s.note.place.fret === 0 || fingers[s.note.place.string - 1] === own
      }),
    )
    .map(({ fingers, cost }) => {
      const crowded = sounding.filter(
        ({ note }) => !leavesRoomForGraces(note, fingers[note.place.string - 1]!),
      )
      return { fingers, cost: cost + PRICE.changed * changes(fingers) + PRICE.joined * crowded.length }
    })
  return possible.length > 0 ? possible : [asWritten(sounding, fixed, strings)]
}

/** The fingers on the page, and the nearest free one for a note that has none yet. */
function asWritten(
  sounding: readonly SoundingNote[],
  fixed: (s: SoundingNote) => LeftFinger | undefined,
  strings: number,
): State {
  const fingers: LeftFinger[] = Array.from({ length: strings }, () => 0)
  const lowest = Math.min(...sounding.flatMap((s) => s.note.place.fret || []))
  for (const s of sounding) {
    const { string, fret } = s.note.place
    if (fret === 0) continue
    const near = Math.min(4, Math.max(1, fret - lowest + 1)) as LeftFinger
    fingers[string - 1] = fixed(s) ?? (s.note.left === 0 ? near : s.note.left)
  }
  return { fingers, cost: PRICE.impossible }
}

function* cheapest(
  onsets: readonly Onset[],
  joinedFrom: ReadonlyMap<Id, Id>,
  notes: readonly TabNote[],
  strings: number,
): Turns<State[]> {
  const byId = new Map(notes.map((n) => [n.id, n]))
  let costs = onsets[0]!.states.map((s) => s.cost)
  const back: number[][] = []
  for (let t = 1; t < onsets.length; t++) {
    if (t % 24 === 0) yield
    const [before, now] = [onsets[t - 1]!, onsets[t]!]
    const from: number[] = []
    const next = now.states.map((state, j) => {
      let best = Infinity
      before.states.forEach((earlier, i) => {
        const cost = costs[i]! + step(before, earlier, now, state, joinedFrom, byId, strings)
        if (cost < best) {
          best = cost
          from[j] = i
        }
      })
      return best + state.cost
    })
    back.push(from)
    costs = next
  }
  let at = costs.indexOf(Math.min(...costs))
  const path = [onsets.at(-1)!.states[at]!]
  for (let t = back.length - 1; t >= 0; t--) {
    at = back[t]![at]!
    path.push(onsets[t]!.states[at]!)
  }
  return path.reverse()
}

function step(
  before: Onset,
  earlier: State,
  now: Onset,
  state: State,
  joinedFrom: ReadonlyMap<Id, Id>,
  byId: ReadonlyMap<Id, TabNote>,
  strings: number,
): number {
  let cost = 0
  const fretOf = (o: Onset, string: number) => o.sounding.find((s) => s.note.place.string === string)
  for (let string = 1; string <= strings; string++) {
    const [a, b] = [fretOf(before, string), fretOf(now, string)]
    if (a && a === b && earlier.fingers[string - 1] !== state.fingers[string - 1]) cost += PRICE.exchanged
  }
  for (const { note, start } of now.sounding) {
    const finger = state.fingers[note.place.string - 1]!
    if (finger === 0) continue
    if (start === now.at && isArrival(note.attack)) {
      const from = byId.get(joinedFrom.get(note.id) ?? '')
      if (from && from.place.fret > 0) {
        const same = earlier.fingers[from.place.string - 1] === finger
        const staysOn = note.attack !== 'hammer' && note.attack !== 'pull'
        if (same !== staysOn) cost += PRICE.joined
      }
    }
    if (start < now.at) continue
    for (const b of before.sounding) {
      const own = earlier.fingers[b.note.place.string - 1]!
      if (own === 0 || fingerNumber(own) !== fingerNumber(finger)) continue
      cost +=
        PRICE.fret * Math.abs(b.note.place.fret - note.place.fret) +
        PRICE.string * Math.abs(b.note.place.string - note.place.string)
    }
  }
  return cost
}
