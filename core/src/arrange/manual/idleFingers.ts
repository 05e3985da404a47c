import { groupBy } from 'es-toolkit'
import type { Layer } from '../../document/arrangement.ts'
import { ticksAt, type Timeline } from '../../document/form/timeline.ts'
import { isLockOf } from '../../document/locks.ts'
import type { Grip, PressedPlace } from '../../document/tab.ts'
import { strainMm } from '../../hand/effort/handMoves.ts'
import { handFault } from '../../hand/grip/handRules.ts'
import { pressedOf, type Pressed } from '../../hand/grip/pressed.ts'
import { pitchAt, type Setup } from '../../instrument/setup.ts'
import { chordPitchClasses } from '../../music/harmony/chordSymbol.ts'
import { mod12, type PitchClass } from '../../music/pitch/pitch.ts'
import { firstAtOrAfter } from '../../music/time/firstAtOrAfter.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import type { HarmonySegment } from '../plan/harmonyLine.ts'
import { inTime } from './reaching.ts'

/** What a string sounds from a time on. */
interface Struck {
  readonly start: Ticks
  readonly fret: number
}

/** A grip while its fingers are tidied. */
interface Held {
  readonly grip: Grip
  readonly at: Ticks
  readonly until: Ticks
  pressed: readonly PressedPlace[]
  /** True for the first grip under a chord. */
  readonly change: boolean
  /** Pitch classes of the chord that sounds; empty where none does. */
  readonly tones: readonly PitchClass[]
}

/**
 * The grips of a layer without what a player would not do: no finger is lifted only to be put back under one chord, where the
 * hand can keep it without strain, nor at a change of chord, where its note belongs to the next; and none comes down in the middle of a chord on a string that does not sound before it leaves. At a change
 * of chord a shape may be taken whole.
 * @param handAt whose hand plays what at a time
 * @param isInside which grips may be changed, by their time; absent: all
 */
export function withoutIdleFingers(
  { notes, grips, locks }: Layer,
  handAt: (at: Ticks) => Setup,
  timeline: Timeline,
  harmony: readonly HarmonySegment[],
  isInside: (at: Ticks) => boolean = () => true,
): readonly Grip[] {
  const sorted = inTime(grips, timeline)
  const times = sorted.map((g) => ticksAt(timeline, g.pos))
  const first = times.findIndex(isInside)
  if (first < 0) return sorted
  // What may be changed lies between grips that may not: those tell what was down before and comes back behind.
  const from = Math.max(0, first - 1)
  const to = Math.min(sorted.length, times.findLastIndex(isInside) + 2)
  const held = heldGrips(sorted, times, { from, to }, timeline, harmony)
  const strings = struckByString({ notes }, timeline, held[0]!.at, held.at(-1)!.until)
  const locked = new Set(locks.filter(isLockOf('grip')).map((l) => l.target))
  const mayChange = ({ grip, at }: Held) => isInside(at) && !locked.has(grip.id)
  keepDown(held, strings, handAt, mayChange)
  takeOff(held, strings, mayChange)
  const tidied = held.map(({ grip, pressed }) => (pressed === grip.pressed ? grip : { ...grip, pressed }))
  return [...sorted.slice(0, from), ...tidied, ...sorted.slice(to)]
}

/** Grips `from` up to `to` as they are tidied. */
function heldGrips(
  sorted: readonly Grip[],
  times: readonly Ticks[],
  { from, to }: { readonly from: number; readonly to: number },
  timeline: Timeline,
  harmony: readonly HarmonySegment[],
): Held[] {
  const begun = (i: number) => (i < 0 ? 0 : firstAtOrAfter(harmony, times[i]! + 1))
  return sorted.slice(from, to).map((grip, k): Held => {
    const i = from + k
    const chord = harmony[begun(i) - 1]?.sounding
    return {
      grip,
      at: times[i]!,
      until: times[i + 1] ?? timeline.length,
      pressed: grip.pressed,
      change: i === 0 || begun(i) > begun(i - 1),
      tones: chord ? chordPitchClasses(chord) : [],
    }
  })
}

const keyOf = ({ string, fret, finger }: PressedPlace): string => `${string} ${fret} ${finger}`
const holds = ({ pressed }: Pick<Held, 'pressed'>, p: PressedPlace): boolean =>
  pressed.some((q) => q.string === p.string && q.fret === p.fret && q.finger === p.finger)

/** Keeps fingers down that come back under the same chord; of one that lies across, what comes back of it. */
function keepDown(
  held: readonly Held[],
  strings: ReadonlyMap<number, readonly Struck[]>,
  handAt: (at: Ticks) => Setup,
  mayChange: (h: Held) => boolean,
): void {
  /** Where each finger lay last at each fret. */
  const last = new Map<string, { at: number; places: readonly PressedPlace[] }>()
  const strainOf = ({ pressed, at }: Held) => strainMm(handAt(at), pressedOf(pressed))
  const isIn = (p: PressedPlace, { tones, at }: Held) => tones.includes(mod12(pitchAt(handAt(at), p)))
  held.forEach((h, i) => {
    if (h.change)
      for (const [key, { at, places }] of last) {
        const kept = at < i - 1 ? [] : places.filter((p) => isIn(p, h))
        if (kept.length > 0) last.set(key, { at, places: kept })
        else last.delete(key)
      }
    for (const [key, places] of Object.entries(groupBy(h.pressed, (p) => `${p.finger} ${p.fret}`))) {
      const before = last.get(key)
      last.set(key, { at: i, places })
      if (!before || before.at === i - 1) continue
      const back = places.filter((p) => before.places.some((q) => q.string === p.string))
      const between = held.slice(before.at + 1, i)
      const strain = Math.max(strainOf(held[before.at]!), strainOf(h))
      if (
        back.length > 0 &&
        between.every((b) => mayChange(b) && canKeep(b, back, strings, handAt(b.at), strain))
      )
        for (const b of between) b.pressed = [...b.pressed, ...back]
    }
  })
}

/**
 * True where a finger can stay where it is through a grip: it is free, its strings sound nothing else, and the hand holds all
 * in one position or without strain, or with no more than `strain` (mm): than it has before and behind.
 */
function canKeep(
  { grip, pressed, at, until }: Held,
  finger: readonly PressedPlace[],
  strings: ReadonlyMap<number, readonly Struck[]>,
  setup: Setup,
  strain: number,
): boolean {
  const busy = [...pressed, ...(grip.ready ?? [])]
  const isTaken = (p: PressedPlace) =>
    busy.some((q) => q.string === p.string || q.finger === p.finger) ||
    struckWithin(strings.get(p.string), at, until).some((s) => s.fret !== p.fret)
  if (finger.some(isTaken)) return false
  const all = pressedOf([...busy, ...finger])
  return (
    (isInPosition(all) || strainMm(setup, all) <= Math.max(strain, strainMm(setup, pressedOf(busy)))) &&
    handFault(setup, setup.player.spans, all) === undefined
  )
}

/** True where each finger lies over a fret of its own of the same position, or nearer to the others. */
const isInPosition = (pressed: readonly Pressed[]): boolean =>
  pressed.every((a) => pressed.every((b) => Math.abs(a.fret - b.fret) <= Math.abs(a.finger - b.finger)))

/** Takes off what comes down in the middle of a chord and sounds nothing before it leaves; of a finger that lies across, all that is new or none. */
function takeOff(
  held: readonly Held[],
  strings: ReadonlyMap<number, readonly Struck[]>,
  mayChange: (h: Held) => boolean,
): void {
  held.forEach((h, i) => {
    const before = held[i - 1]
    if (h.change || !before) return
    for (const p of h.pressed) {
      if (holds(before, p)) continue
      let end = i
      while (end + 1 < held.length && holds(held[end + 1]!, p)) end++
      const run = held.slice(i, end + 1)
      if (!run.every(mayChange)) continue
      const across = [
        p,
        ...run.flatMap((r) =>
          r.pressed.filter((q) => q.finger === p.finger && q.fret === p.fret && !holds(before, q)),
        ),
      ]
      const sounds = across.some((q) =>
        struckWithin(strings.get(q.string), h.at, run.at(-1)!.until).some((s) => s.fret === q.fret),
      )
      if (!sounds) for (const r of run) r.pressed = r.pressed.filter((q) => keyOf(q) !== keyOf(p))
    }
  })
}

/** What each string sounds within a stretch, in order of time; short notes with the note that they lead to. */
function struckByString(
  { notes }: Pick<Layer, 'notes'>,
  timeline: Timeline,
  from: Ticks,
  to: Ticks,
): Map<number, Struck[]> {
  const strings = new Map<number, Struck[]>()
  const add = (string: number, s: Struck) => {
    const own = strings.get(string)
    if (own) own.push(s)
    else strings.set(string, [s])
  }
  for (const { place, pos, graces = [] } of inTime(notes, timeline)) {
    const start = ticksAt(timeline, pos)
    if (start < from || start >= to) continue
    for (const g of graces) add(g.place.string, { start, fret: g.place.fret })
    add(place.string, { start, fret: place.harmonic ? 0 : place.fret })
  }
  return strings
}

function struckWithin(struck: readonly Struck[] = [], from: Ticks, to: Ticks): readonly Struck[] {
  return struck.slice(firstAtOrAfter(struck, from), firstAtOrAfter(struck, to))
}
