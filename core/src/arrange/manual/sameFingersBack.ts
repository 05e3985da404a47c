import { groupBy, once } from 'es-toolkit'
import { present } from '../../invariant.ts'
import type { Layer } from '../../document/arrangement.ts'
import { measureAt, ticksAt, type Timeline } from '../../document/form/timeline.ts'
import type { LockField } from '../../document/locks.ts'
import { isArrival, type Grip, type PressedPlace, type TabNote } from '../../document/tab.ts'
import { strainMm } from '../../hand/effort/handMoves.ts'
import { handFault } from '../../hand/grip/handRules.ts'
import { isPressed, pressedOf, type Pressed } from '../../hand/grip/pressed.ts'
import type { Setup } from '../../instrument/setup.ts'
import { firstAtOrAfter } from '../../music/time/firstAtOrAfter.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import { segmentAt, type HarmonySegment } from '../plan/harmonyLine.ts'
import { inTime } from './reaching.ts'

/** A finger on a place, from grip `from` up to grip `to`. */
interface Stay {
  readonly place: PressedPlace
  readonly from: number
  readonly to: number
}

/**
 * Notes and grips in which a finger that leaves a place comes back to it itself: not another one, under the same chord and in the same
 * measure, while the first is free all the time. Where a whole shape follows, it is the shape's finger. Fingers that were set by hand
 * and locked measures stay, and so does what is hammered, pulled, slid or bent.
 * @param handAt whose hand plays what at a time
 * @param isInside which grips may be changed, by their time
 */
export function sameFingersBack(
  { notes, grips, locks }: Layer,
  handAt: (at: Ticks) => Setup,
  timeline: Timeline,
  harmony: readonly HarmonySegment[],
  isInside: (at: Ticks) => boolean = () => true,
): Pick<Layer, 'notes' | 'grips'> {
  const held: Grip[] = [...inTime(grips, timeline)]
  const times = held.map((g) => ticksAt(timeline, g.pos))
  const locked = new Set(locks.filter((l) => KEEPS_FINGERS.has(l.field)).map((l) => l.target))
  const fingers = new Map<TabNote, PressedPlace['finger']>()
  const left = new Map<string, Stay>()
  const struckOn = once(() =>
    groupBy(
      inTime(notes, timeline).map((note) => ({ note, start: ticksAt(timeline, note.pos) })),
      (s) => s.note.place.string,
    ),
  )
  const stretches: (string | undefined)[] = []
  const chordAndMeasure = (i: number): string | undefined => {
    const at = times[i]
    if (at === undefined) return undefined
    stretches[i] ??= `${segmentAt(harmony, at)} ${measureAt(timeline, at)}`
    return stretches[i]
  }
  // Fingers come back within a chord and a measure: none of the others has a say in what may be changed.
  let first = times.findIndex(isInside)
  if (first < 0) return { notes, grips: held }
  while (first > 0 && chordAndMeasure(first - 1) === chordAndMeasure(first)) first--
  const end = times.findLastIndex(isInside) + 1
  const wasDown = (i: number, place: PressedPlace) =>
    held[i - 1]?.pressed.some((q) => isAt(q, place)) === true

  // A finger that goes to a place of the shape that follows is the shape's own.
  for (let i = first; i < end; i++)
    for (const place of held[i]!.shape === undefined ? held[i]!.pressed : []) {
      const stay = { place, from: i, to: lastHolding(held, i, place) }
      const next = nextHolding(stay)
      if (wasDown(i, place) || !next) continue
      const between = held.slice(stay.to + 1, next.at)
      if (between.every((g) => g.pressed.every((q) => q.finger !== next.finger)))
        rename(stay, next.finger, i - 1)
    }

  for (let i = first; i < end; i++) {
    if (i > first && chordAndMeasure(i) !== chordAndMeasure(i - 1)) left.clear()
    for (const place of held[i]!.pressed) {
      const key = `${place.string} ${place.fret}`
      const stay = { place, from: i, to: lastHolding(held, i, place) }
      const before = left.get(key)
      if (!wasDown(i, place) && before && chordAndMeasure(stay.to) === chordAndMeasure(i))
        rename(stay, before.place.finger, before.to)
      left.set(key, { ...stay, place: present(held[i]!.pressed.find((q) => isAt(q, place))) })
    }
  }

  /** The shape under the same chord and in the same measure that has the place next, and its finger there. */
  function nextHolding({ place, to }: Stay): { at: number; finger: PressedPlace['finger'] } | undefined {
    for (let k = to + 1; k < held.length && chordAndMeasure(k) === chordAndMeasure(to); k++) {
      const there = held[k]!.pressed.find((q) => isAt(q, place))
      if (there) return held[k]!.shape === undefined ? undefined : { at: k, finger: there.finger }
    }
    return undefined
  }

  /** Gives what a finger holds and plays to another one, where that can be. */
  function rename(stay: Stay, finger: PressedPlace['finger'], last: number): void {
    const { place, from, to } = stay
    const own = finger === place.finger ? undefined : playedBy(stay)
    if (!own || !mayRename(finger, stay, last)) return
    for (let k = from; k <= to; k++) held[k] = renamedIn(held[k]!, place, finger, last)
    for (const n of own) fingers.set(n, finger)
  }

  function mayRename(finger: PressedPlace['finger'], { place, from, to }: Stay, last: number): boolean {
    // It would have to jump right after; what comes after the measure has no say, so that equal measures stay alike.
    const next = held[to + 1]
    const goesOn = next !== undefined && next.pos.measure === held[to]!.pos.measure
    if (goesOn && next.pressed.some((q) => q.finger === finger && !isAt(q, place))) return false
    for (let k = last + 1; k <= to; k++) {
      const { id, pos, pressed, shape, ready = [] } = held[k]!
      if (pressed.some((q) => q.finger === finger) || ready.length > 0) return false
      if (k < from) continue
      if (locked.has(id) || locked.has(pos.measure) || !isInside(times[k]!)) return false
      // One that lies across stays as it is.
      if (pressed.some((q) => q.finger === place.finger && !isAt(q, place))) return false
      const setup = handAt(times[k]!)
      const renamed = pressedOf(pressed.map((q) => (isAt(q, place) ? { ...q, finger } : q)))
      if (handFault(setup, setup.player.spans, renamed) !== undefined) return false
      // A held shape has fingers of its own, unless the hand is within one that it held before.
      if (shape !== undefined && shapeBefore(last, renamed) === undefined) return false
      if (strainMm(setup, renamed) > strainMm(setup, pressedOf(pressed))) return false
    }
    return true
  }

  /** The grip with a finger renamed; its shape is then the one that the hand held before. */
  function renamedIn(grip: Grip, place: PressedPlace, finger: PressedPlace['finger'], last: number): Grip {
    const pressed = grip.pressed.map((q) => (isAt(q, place) ? { ...q, finger } : q))
    const shape = grip.shape === undefined ? undefined : shapeBefore(last, pressedOf(pressed))
    return { ...grip, pressed, ...(shape === undefined ? {} : { shape }) }
  }

  /** The shape that the hand held under this chord up to a grip, with these places under these fingers in it. */
  function shapeBefore(last: number, pressed: readonly Pressed[]): string | undefined {
    const chord = chordAndMeasure(last)
    const seen: Pressed[] = []
    for (let k = last; k >= 0 && chordAndMeasure(k) === chord; k--) {
      const { shape } = held[k]!
      if (shape === undefined) continue
      if (held[last]!.shape !== undefined && shape !== held[last]!.shape) break
      seen.push(...pressedOf(held[k]!.pressed))
      if (pressed.every((p) => isPressed(seen, p))) return shape
    }
    return undefined
  }

  /** What a finger plays there in the meantime; undefined where another finger would change how it is played. */
  function playedBy({ place, from, to }: Stay): readonly TabNote[] | undefined {
    const own = struckOn()[place.string] ?? []
    const [start, end] = [times[from]!, times[to + 1] ?? timeline.length]
    const [first, after] = [firstAtOrAfter(own, start), firstAtOrAfter(own, end)]
    const during = own.slice(first, after).map((s) => s.note)
    const next = own[after]?.note
    const isPlain = (n: TabNote) => PLAIN.has(n.attack) && !n.graces && !n.bend && !locked.has(n.id)
    const plain = during.every((n) => n.place.fret === place.fret && n.left === place.finger && isPlain(n))
    return plain && (!next || (!isArrival(next.attack) && !next.graces)) ? during : undefined
  }

  const renamed = (n: TabNote): TabNote => {
    const finger = fingers.get(n)
    return finger === undefined ? n : { ...n, left: finger }
  }
  return {
    notes: notes.map(renamed),
    grips: held,
  }
}

/** Locks under which fingers stay. */
const KEEPS_FINGERS: ReadonlySet<LockField> = new Set(['grip', 'left', 'measure'])

/** Ways to sound a note under any finger. */
const PLAIN: ReadonlySet<string> = new Set(['pluck', 'brush', 'tremolo'])

const isAt = (a: PressedPlace, b: PressedPlace): boolean => a.string === b.string && a.fret === b.fret

/** The last of the grips that hold a place in a row under one finger. */
function lastHolding(held: readonly Grip[], from: number, place: PressedPlace): number {
  let to = from
  while (held[to + 1]?.pressed.some((q) => isAt(q, place) && q.finger === place.finger)) to++
  return to
}
