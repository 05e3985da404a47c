import {
  bendableBy,
  isArrival,
  LEAST_BEND_FRET,
  openPitch,
  pitchAt,
  ticksAt,
  type Arrival,
  type Attack,
  type Lock,
  type Setup,
  type TabNote,
} from '@velvet-porch/core'
import type { SheetModel, Spot } from '../sheet/sheetModel.ts'

/** Ways to sound a melody note that a teacher may ask for. */
export type SoundedWay = 'pluck' | Exclude<Arrival, 'release'>

/** The melody note at a spot and the one before it that it could be reached from. */
export interface SoundedPair {
  readonly from: TabNote
  readonly to: TabNote
}

/** The melody note at a spot with the one that ends where it begins. */
export function pairAt(model: SheetModel, spot: Spot): SoundedPair | undefined {
  const to = model.notes
    .get(spot.measure)
    ?.find((n) => n.role === 'melody' && n.pos.tick === spot.tick && !n.graces)
  if (!to) return undefined
  const start = ticksAt(model.timeline, to.pos)
  const melody = [...(model.notes.get(spot.measure - 1) ?? []), ...model.notes.get(spot.measure)!]
  const from = melody.find(
    (n) => n.role === 'melody' && ticksAt(model.timeline, n.pos) + n.dur.ticks === start,
  )
  return from ? { from, to } : undefined
}

/** The ways in which the second note of a pair could be sounded on the string of the first. */
export function waysOf(setup: Setup, { from, to }: SoundedPair): SoundedWay[] {
  const fret = pitchAt(setup, to.place) + (to.bend ?? 0) - openPitch(setup, from.place.string)
  const step = fret - from.place.fret
  if (from.place.harmonic || to.place.harmonic || fret < 0 || step === 0) return ['pluck']
  const slide: SoundedWay[] = fret > 0 && from.place.fret > 0 && Math.abs(step) <= 5 ? ['slide'] : []
  const slur: SoundedWay[] = Math.abs(step) <= 4 ? [step > 0 ? 'hammer' : 'pull'] : []
  const gives = step >= 1 && step <= bendableBy(from.place.string) && from.place.fret >= LEAST_BEND_FRET
  return ['pluck', ...slur, ...slide, ...(gives ? (['bend'] as const) : [])]
}

/**
 * The locks that make one way of it: the attack, both notes on one string, and fingers that can do it (the same for a
 * slide, a finger a fret for the others).
 */
export function locksFor(
  setup: Setup,
  { from, to }: SoundedPair,
  way: SoundedWay,
): readonly Omit<Lock, 'id'>[] {
  const attack = { target: to.id, field: 'attack', value: way satisfies Attack }
  if (!isArrival(way)) return [attack]
  const { string } = from.place
  const fret = pitchAt(setup, to.place) + (to.bend ?? 0) - openPitch(setup, string)
  const place = (note: TabNote, value: TabNote['place']) => ({ target: note.id, field: 'place', value })
  const finger = (note: TabNote, value: number) => ({ target: note.id, field: 'left', value })
  const locks = [attack, place(from, from.place), place(to, { string, fret })]
  if (typeof from.left !== 'number') return locks
  if (way === 'slide') return [...locks, finger(from, from.left), finger(to, from.left)]
  // A finger behind the one that pushes.
  const pushing = Math.max(2, from.left)
  if (way === 'bend') return [...locks, finger(from, pushing), finger(to, pushing)]
  const step = fret - from.place.fret
  if (fret === 0 || from.place.fret === 0) return locks
  // A finger a fret, both inside the hand.
  const span = Math.min(3, Math.abs(step))
  const low = Math.min(4 - span, Math.max(1, way === 'hammer' ? from.left : Math.max(1, from.left - span)))
  return way === 'hammer'
    ? [...locks, finger(from, low), finger(to, low + span)]
    : [...locks, finger(from, low + span), finger(to, low)]
}
