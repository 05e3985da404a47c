import { positionMm } from '../../hand/moves/handPosition.ts'
import type { LeftFinger } from '../../instrument/hand.ts'
import { isArrival, type TabNote } from '../../document/tab.ts'
import type { Id } from '../../document/ids.ts'
import { codeLow, codeTop, fingerCodes, fingerNumber, isPressed, THUMB } from '../../hand/grip/pressed.ts'
import type { Setup } from '../../instrument/setup.ts'
import { cheapestChain, type JoinPricer } from '../../cheapestChain.ts'
import { mapInTurns, type Turns } from '../../turns.ts'
import { fingerPricer, positionChangePricer, type HandSet } from '../search/transition.ts'
import { WEIGHTS } from '../search/weights.ts'
import { isStruckAt, type Moment } from './moments.ts'
import type { HandState } from './handStates.ts'

/** A moment with the ways to hold it. */
export interface HeldMoment {
  readonly moment: Moment
  readonly states: readonly HandState[]
}

/** Prices of a join beside those of the search. Common practice, no source. */
const PRICE = {
  /** A note that sounds on is taken over by another finger. */
  exchanged: 60,
  /** A place is struck again with another finger. */
  substituted: 4,
  /** A slide, bend or release that does not stay on its finger; a hammer-on or pull-off that does, or that crosses. */
  joined: 40,
  /** Share of a shift's price where no finger, one, or several slide along and show the hand its way. */
  guidedShare: [1, 0.4, 0.15],
  /** Equal measures held otherwise: a finger of what is struck; a finger that sounds nothing. */
  unlikeStruck: 6,
  unlikeIdle: 0.6,
}

/** What the path knows beside its moments. */
export interface PathContext {
  readonly setup: Setup
  /** The note from which the fretting hand reaches each, by id. */
  readonly joinedFrom: ReadonlyMap<Id, TabNote>
  /** Share of a shift's price at each moment: more where the school keeps the hand in its position. */
  readonly shiftShare: (moment: Moment) => number
  /** Moments of measures that are equal to earlier ones, each with the first of its kind. */
  readonly alike: ReadonlyMap<number, number>
}

/**
 * The hand that asks least over a stretch: exact over its moments, with the finger prices of the search. Where measures are
 * equal they are held alike, unless that is dear.
 * @returns the chosen state of each moment
 */
export function* cheapestHands(held: readonly HeldMoment[], context: PathContext): Turns<HandState[]> {
  const sets = yield* mapInTurns(held, ({ states }) => handSetOf(context.setup, states), 32)
  const joinInto = (t: number) => joinPricer(held[t - 1]!, held[t]!, sets[t - 1]!, sets[t]!, context)
  const own = held.map(({ states }) => ({ prices: states.map((s) => s.price) }))
  const first = yield* cheapestChain(own, joinInto)
  let { choice } = first
  if (context.alike.size > 0) {
    const withLikeness = yield* mapInTurns(
      own,
      ({ prices }, t) => {
        const model = context.alike.get(t)
        if (model === undefined) return { prices }
        const chosen = held[model]!.states[choice[model]!]!
        return { prices: prices.map((price, j) => price + unlikeness(held[t]!.states[j]!, chosen)) }
      },
      16,
    )
    choice = (yield* cheapestChain(withLikeness, joinInto)).choice
  }
  return held.map(({ states }, t) => states[choice[t]!]!)
}

function unlikeness(state: HandState, model: HandState): number {
  const struck = state.fingers.filter((f, i) => f !== model.fingers[i]).length
  const lacks = (a: HandState, b: HandState) => a.pressed.filter((p) => !isPressed(b.pressed, p)).length
  const idle = lacks(state, model) + lacks(model, state)
  return PRICE.unlikeStruck * struck + PRICE.unlikeIdle * idle
}

/** Hands as the search's pricers read them. */
export function handSetOf(
  setup: Setup,
  states: readonly Pick<HandState, 'pressed' | 'fingers' | 'position'>[],
): HandSet {
  const fingers = setup.player.techniques.thumbOver ? THUMB : 4
  const set = {
    fingers,
    codes: new Int16Array(states.length * fingers),
    positionMm: new Float64Array(states.length),
    openOnly: new Uint8Array(states.length),
  }
  states.forEach(({ pressed, fingers: sounding, position }, i) => {
    fingerCodes(pressed)
      .slice(0, fingers)
      .forEach((code, f) => (set.codes[i * fingers + f] = code))
    set.positionMm[i] = positionMm(setup, position)
    set.openOnly[i] = sounding.every((f) => f === 0) ? 1 : 0
  })
  return set
}

function joinPricer(
  before: HeldMoment,
  now: HeldMoment,
  from: HandSet,
  to: HandSet,
  { joinedFrom, shiftShare }: PathContext,
): JoinPricer {
  const { seconds } = now.moment
  const fingers = fingerPricer(from, to, { seconds })
  const shiftPrice = positionChangePricer({ seconds, shiftShare: shiftShare(now.moment) })
  const rules = joinRules(before.moment, now.moment, joinedFrom)
  return (i, j, limit) => {
    let cost = shiftPrice(Math.abs(from.positionMm[i]! - to.positionMm[j]!), from.openOnly[i] === 1, false)
    if (cost > 0) cost *= PRICE.guidedShare[Math.min(2, guidesOf(from, i, to, j))]!
    if (cost >= limit) return cost
    cost += fingers(i, j) + barreLaid(from, i, to, j) * (now.states[j]!.shape ? WEIGHTS.pinnedEase : 1)
    if (cost >= limit) return cost
    const [a, b] = [before.states[i]!, now.states[j]!]
    for (const rule of rules) cost += rule(a, b)
    return cost
  }
}

/** Price of a finger that is laid across strings anew. */
function barreLaid(from: HandSet, i: number, to: HandSet, j: number): number {
  let price = 0
  for (let f = 0; f < to.fingers; f++) {
    const code = to.codes[j * to.fingers + f]!
    const strings = code === 0 ? 0 : codeLow(code) - codeTop(code) + 1
    if (strings > 1 && code !== from.codes[i * from.fingers + f])
      price += WEIGHTS.barre + WEIGHTS.barreString * (strings - 2)
  }
  return price
}

/** Fingers that go along their strings; none where a finger goes to another string. */
function guidesOf(from: HandSet, i: number, to: HandSet, j: number): number {
  let slides = 0
  for (let f = 0; f < from.fingers; f++) {
    const [a, b] = [from.codes[i * from.fingers + f]!, to.codes[j * to.fingers + f]!]
    if (a === 0 || b === 0 || a === b) continue
    if (codeTop(a) !== codeTop(b) || codeLow(a) !== codeLow(b)) return 0
    slides++
  }
  return slides
}

type Rule = (before: HandState, now: HandState) => number

/** What the notes of two moments ask of their fingers. */
function joinRules(before: Moment, now: Moment, joinedFrom: PathContext['joinedFrom']): Rule[] {
  return now.sounding.flatMap((s): Rule[] => {
    const { note } = s
    const at = note.place.string - 1
    if (note.place.fret === 0 || s.bar) return []
    const last = before.sounding.find((o) => o.note.place.string === note.place.string)
    if (!isStruckAt(now, s)) {
      // A note that was let go before has no finger any more.
      return last?.note.id === note.id
        ? [
            ({ fingers: a }, { fingers: b }) =>
              b[at] !== 0 && a[at] !== 0 && a[at] !== b[at] ? PRICE.exchanged : 0,
          ]
        : []
    }
    const origin = isArrival(note.attack) ? joinedFrom.get(note.id) : undefined
    if (origin && origin.place.fret > 0) {
      return [
        (a, b) =>
          keepsJoin(note.attack, a.fingers[at]!, b.fingers[at]!) &&
          isFreeFor(note, b.fingers[at]!, a, note.attack === 'pull') &&
          isFreeFor(origin, a.fingers[at]!, b, note.attack === 'hammer')
            ? 0
            : PRICE.joined,
      ]
    }
    return last?.note.place.fret === note.place.fret
      ? [({ fingers: a }, { fingers: b }) => (a[at] !== 0 && a[at] !== b[at] ? PRICE.substituted : 0)]
      : []
  })
}

/**
 * True where a finger of one hand can be at a note's place as well, if it has to: under a pull-off the finger to which it goes
 * is down before, under a hammer-on the one from which it comes stays. At its own fret a finger lies across.
 */
const isFreeFor = ({ place }: TabNote, finger: LeftFinger, hand: HandState, hasTo: boolean): boolean =>
  !hasTo || hand.pressed.every((p) => p.finger !== fingerNumber(finger) || p.fret === place.fret)

/** A slide and a bend stay on their finger; a hammer-on rises to a higher finger, a pull-off goes to a lower one. */
function keepsJoin(
  attack: string,
  from: HandState['fingers'][number],
  to: HandState['fingers'][number],
): boolean {
  const [a, b] = [fingerNumber(from), fingerNumber(to)]
  if (attack === 'hammer') return b > a
  if (attack === 'pull') return b < a
  return a === b
}
