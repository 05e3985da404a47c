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

/** Where both notes of a pair lie on one string. */
interface OnString {
  readonly string: number
  readonly from: number
  readonly to: number
}

/** Frets that a finger slides at most, and hammers or pulls at most: as the arranger has it. */
const FARTHEST_SLIDE = 5
const FARTHEST_SLUR = 4

function fits(way: SoundedWay, { string, from, to }: OnString): boolean {
  const step = to - from
  switch (way) {
    case 'pluck':
      return true
    case 'hammer':
      return step > 0 && step <= FARTHEST_SLUR
    case 'pull':
      return step < 0 && step >= -FARTHEST_SLUR
    case 'slide':
      return step !== 0 && from > 0 && to > 0 && Math.abs(step) <= FARTHEST_SLIDE
    case 'bend':
      return step >= 1 && step <= bendableBy(string) && from >= LEAST_BEND_FRET
  }
}

/** Highest fret to which a pair is moved for the sake of one string. */
const HIGHEST = 12

/** The string on which a pair can be sounded in a way: the one that the first note is on, else the lowest places. */
function stringFor(setup: Setup, { from, to }: SoundedPair, way: SoundedWay): OnString | undefined {
  if (from.place.harmonic || to.place.harmonic) return undefined
  const pitch = (n: TabNote) => pitchAt(setup, n.place) + (n.bend ?? 0)
  const own = from.place.string
  const all = setup.tuning.map((_, i): OnString => {
    const open = openPitch(setup, i + 1)
    return { string: i + 1, from: pitch(from) - open, to: pitch(to) - open }
  })
  return all
    .filter((o) => Math.min(o.from, o.to) >= 0 && Math.max(o.from, o.to) <= HIGHEST && fits(way, o))
    .sort((a, b) => Number(b.string === own) - Number(a.string === own) || a.from + a.to - b.from - b.to)[0]
}

const WAYS: readonly SoundedWay[] = ['hammer', 'pull', 'slide', 'bend']

/** The ways in which the second note of a pair could be sounded. */
export function waysOf(setup: Setup, pair: SoundedPair): SoundedWay[] {
  return ['pluck', ...WAYS.filter((way) => stringFor(setup, pair, way))]
}

/**
 * The locks that make one way of it: the attack, both notes on one string, and fingers that can do it (the same for a
 * slide and a bend, a finger a fret for the others).
 */
export function locksFor(setup: Setup, pair: SoundedPair, way: SoundedWay): readonly Omit<Lock, 'id'>[] {
  const { from, to } = pair
  const attack = { target: to.id, field: 'attack', value: way satisfies Attack }
  const on = isArrival(way) ? stringFor(setup, pair, way) : undefined
  if (!on) return [attack]
  const { string } = on
  const place = (note: TabNote, fret: number) => ({
    target: note.id,
    field: 'place',
    value: { string, fret },
  })
  const finger = (note: TabNote, value: number) => ({ target: note.id, field: 'left', value })
  const locks = [attack, place(from, on.from), place(to, on.to)]
  if (on.from === 0 || on.to === 0) return locks
  const stays = string === from.place.string && typeof from.left === 'number' && from.left > 0
  const own = stays ? Number(from.left) : 2
  if (way === 'slide') return [...locks, finger(from, own), finger(to, own)]
  // A finger behind the one that pushes.
  const pushing = Math.max(2, own)
  if (way === 'bend') return [...locks, finger(from, pushing), finger(to, pushing)]
  // A finger a fret, both inside the hand.
  const span = Math.min(3, Math.abs(on.to - on.from))
  const low = Math.min(4 - span, Math.max(1, way === 'hammer' ? own : own - span))
  return way === 'hammer'
    ? [...locks, finger(from, low), finger(to, low + span)]
    : [...locks, finger(from, low + span), finger(to, low)]
}
