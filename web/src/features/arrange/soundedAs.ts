import {
  artificialPlacesOf,
  openPitch,
  pitchAt,
  placesOf,
  type Place,
  type Setup,
} from '@velvet-porch/core/instrument'
import {
  ticksAt,
  type Arrival,
  type AskedArticulation,
  isLockOf,
  type Lock,
  type NewLock,
  type TabNote,
} from '@velvet-porch/core/document'
import { leftFinger } from '@velvet-porch/core/hand'
import { bendableBy, isTouched, LEAST_BEND_FRET } from '@velvet-porch/core/arrange'
import type { SheetModel, SheetPosition } from '../../score/sheet/sheetModel.ts'

/** Ways to sound a melody note that a teacher may ask for: from the note before, or by itself. */
export type ArticulationChoice = AskedArticulation | 'artificial'

/** The melody note at a spot with its neighbours, where they join it. */
export interface SoundedNote {
  readonly from: TabNote | undefined
  readonly to: TabNote
  readonly next: TabNote | undefined
}

/** The melody note at a spot, with the one that ends where it begins and the one that begins where it ends. */
export function soundedAt(model: SheetModel, position: SheetPosition): SoundedNote | undefined {
  const to = model.notes
    .get(position.measure)
    ?.find((n) => n.role === 'melody' && n.pos.tick === position.tick && !n.graces)
  if (!to) return undefined
  const startOf = (n: TabNote) => ticksAt(model.timeline, n.pos)
  const near = [-1, 0, 1].flatMap((d) => model.notes.get(position.measure + d) ?? [])
  const melody = near.filter((n) => n.role === 'melody')
  return {
    from: melody.find((n) => startOf(n) + n.dur.ticks === startOf(to)),
    to,
    next: melody.find((n) => startOf(n) === startOf(to) + to.dur.ticks),
  }
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

function fits(setup: Setup, way: Exclude<Arrival, 'release'>, { string, from, to }: OnString): boolean {
  const step = to - from
  switch (way) {
    case 'hammer':
      return step > 0 && step <= FARTHEST_SLUR
    case 'pull':
      return step < 0 && step >= -FARTHEST_SLUR
    case 'slide':
      return step !== 0 && from > 0 && to > 0 && Math.abs(step) <= FARTHEST_SLIDE
    case 'bend':
      return step >= 1 && step <= bendableBy(setup, string) && from >= LEAST_BEND_FRET
  }
}

/** Highest fret to which a pair is moved for the sake of one string. */
const HIGHEST = 12

const heard = (setup: Setup, n: TabNote) => pitchAt(setup, n.place) + (n.bend ?? 0)

/** The string on which two notes can be joined in a way: the one that the first note is on, else the lowest places. */
function stringFor(
  setup: Setup,
  { from, to }: SoundedNote,
  way: Exclude<Arrival, 'release'>,
): OnString | undefined {
  if (!from || isTouched(from.place)) return undefined
  const own = from.place.string
  const all = setup.tuning.map((_, i): OnString => {
    const open = openPitch(setup, i + 1)
    return { string: i + 1, from: heard(setup, from) - open, to: heard(setup, to) - open }
  })
  return all
    .filter((o) => Math.min(o.from, o.to) >= 0 && Math.max(o.from, o.to) <= HIGHEST && fits(setup, way, o))
    .sort((a, b) => Number(b.string === own) - Number(a.string === own) || a.from + a.to - b.from - b.to)[0]
}

/** Where a note can be pushed up to before it is struck: the lowest place with room for it, and how far. */
function pushedFrom(
  setup: Setup,
  { to, next }: SoundedNote,
): { place: Place; semitones: number } | undefined {
  const midi = heard(setup, to)
  const falls = next ? midi - heard(setup, next) : 0
  return placesOf(setup, midi)
    .map((place) => {
      const most = bendableBy(setup, place.string)
      return { place, semitones: falls >= 1 && falls <= most ? falls : most }
    })
    .filter(
      ({ place, semitones }) =>
        semitones > 0 && place.fret - semitones >= LEAST_BEND_FRET && place.fret <= HIGHEST,
    )
    .sort((a, b) => a.place.fret - b.place.fret)[0]
}

/** The place of an artificial harmonic nearest to the nut. */
const harmonicFor = (setup: Setup, { to }: SoundedNote): Place | undefined =>
  artificialPlacesOf(setup, heard(setup, to)).sort((a, b) => a.fret - b.fret)[0]

const WAYS = ['hammer', 'pull', 'slide', 'bend'] as const

/** The ways in which a note could be sounded. */
export function articulationsOf(setup: Setup, note: SoundedNote): ArticulationChoice[] {
  return [
    'pluck',
    ...WAYS.filter((way) => stringFor(setup, note, way)),
    ...(pushedFrom(setup, note) ? (['preBend'] as const) : []),
    ...(harmonicFor(setup, note) ? (['artificial'] as const) : []),
  ]
}

/** What was asked of a note. */
export function askedArticulation(locks: readonly Lock[], to: TabNote): ArticulationChoice | undefined {
  const own = locks.filter((l) => l.target === to.id)
  if (own.some((l) => l.field === 'place' && l.value.artificial)) return 'artificial'
  return own.find(isLockOf('attack'))?.value
}

/** True where a note is sounded as it was asked. */
export function isSoundedAs({ attack, bend, place }: TabNote, way: ArticulationChoice): boolean {
  if (way === 'preBend') return attack === 'pluck' && bend !== undefined
  if (way === 'artificial') return place.artificial === true
  return attack === way
}

const placeLock = (note: TabNote, value: Place): NewLock => ({ target: note.id, field: 'place', value })
const fingerLock = (note: TabNote, finger: number): NewLock => ({
  target: note.id,
  field: 'left',
  value: leftFinger(finger),
})

/**
 * The locks that make one way of it: the attack, the notes on one string, and fingers that can do it (the same for a
 * slide and a bend, a finger a fret for the others).
 */
export function locksFor(setup: Setup, note: SoundedNote, way: ArticulationChoice): readonly NewLock[] {
  const { from, to, next } = note
  if (way === 'artificial') {
    const place = harmonicFor(setup, note)
    return place ? [placeLock(to, place)] : []
  }
  const attack: NewLock = { target: to.id, field: 'attack', value: way }
  if (way === 'pluck') return [attack]
  if (way === 'preBend') {
    const pushed = pushedFrom(setup, note)
    if (!pushed) return [attack]
    const { place, semitones } = pushed
    const locks = [attack, placeLock(to, place), fingerLock(to, PUSHING)]
    const returns = next && heard(setup, to) - heard(setup, next) === semitones
    const back = { string: place.string, fret: place.fret - semitones }
    return returns ? [...locks, placeLock(next, back), fingerLock(next, PUSHING)] : locks
  }
  const on = stringFor(setup, note, way)
  if (!on || !from) return [attack]
  const { string } = on
  const locks = [attack, placeLock(from, { string, fret: on.from }), placeLock(to, { string, fret: on.to })]
  if (on.from === 0 || on.to === 0) return locks
  const stays = string === from.place.string && typeof from.left === 'number' && from.left > 0
  const own = stays ? Number(from.left) : 2
  if (way === 'slide') return [...locks, fingerLock(from, own), fingerLock(to, own)]
  // A finger behind the one that pushes.
  const pushing = Math.max(2, own)
  if (way === 'bend') return [...locks, fingerLock(from, pushing), fingerLock(to, pushing)]
  // A finger a fret, both inside the hand.
  const span = Math.min(3, Math.abs(on.to - on.from))
  const low = Math.min(4 - span, Math.max(1, way === 'hammer' ? own : own - span))
  return way === 'hammer'
    ? [...locks, fingerLock(from, low), fingerLock(to, low + span)]
    : [...locks, fingerLock(from, low + span), fingerLock(to, low)]
}

/** The finger that pushes a string up, with two behind it. */
const PUSHING = 3
