import { isArrival, type Arrival, type Grip, type TabNote } from '../../document/tab.ts'
import type { Place, Setup } from '../../instrument/setup.ts'
import { withFinger } from './handRoom.ts'

/** What of a note counts here. */
export type ArrivingNote = Pick<TabNote, 'place' | 'left' | 'attack'>

/** Semitones that a finger hammers or pulls at most, and frets that it slides at most. Common practice, no source. */
const FARTHEST_SLUR = 4
const FARTHEST_SLIDE = 5

/** How a note is reached from the one before it on its string, and what the hand holds for that. */
export interface Reached {
  readonly how: Arrival
  /** The grip just before the note: a pull-off's target is already down in it. */
  readonly before: Grip
  /** The grip at the note: the lower finger of a hammer-on stays down in it. */
  readonly at: Grip
}

/**
 * Whether the fretting hand alone can sound a note from the one before it: both on one string, the first still
 * sounding; a hammer-on by another finger above the first, which stays down; a pull-off onto a finger that can be down
 * before, or onto the open string; a slide by the finger itself.
 * @param only asks for one way; undefined takes what the fingers suggest
 */
export function reachedBy(
  setup: Setup,
  from: ArrivingNote,
  to: ArrivingNote,
  before: Grip,
  at: Grip,
  only?: Arrival,
): Reached | undefined {
  if (from.place.string !== to.place.string || from.place.fret === to.place.fret) return undefined
  if (isTouched(from.place) || isTouched(to.place) || from.attack === 'muted' || to.attack === 'muted')
    return undefined
  const frets = to.place.fret - from.place.fret
  const sameFinger = from.left === to.left && from.left !== 0
  const how: Arrival = sameFinger ? 'slide' : frets > 0 ? 'hammer' : 'pull'
  if (only && how !== only) return undefined
  if (how === 'slide')
    return Math.abs(frets) <= FARTHEST_SLIDE && from.left !== 'T' ? { how, before, at } : undefined
  if (Math.abs(frets) > FARTHEST_SLUR) return undefined
  if (how === 'hammer') {
    if (to.left === 0 || to.left === 'T' || staysAcross(before, at, to)) return undefined
    if (from.left === 0) return { how, before, at }
    const stays = from.left === 'T' ? undefined : withFinger(setup, at, from.place, from.left)
    return stays ? { how, before, at: stays } : undefined
  }
  if (from.left === 0 || from.left === 'T' || to.left === 'T') return undefined
  if (to.left === 0) return { how, before, at }
  const down = withFinger(setup, before, to.place, to.left)
  return down ? { how, before: down, at } : undefined
}

/** True where the finger of a note goes on holding another string at its fret: it cannot come down anew. */
function staysAcross(before: Grip, at: Grip, { place, left }: ArrivingNote): boolean {
  const holds = (grip: Grip, string: number) =>
    grip.pressed.some((p) => p.finger === left && p.fret === place.fret && p.string === string)
  return at.pressed.some(
    ({ string }) => string !== place.string && holds(at, string) && holds(before, string),
  )
}

/** True for a harmonic, natural or artificial: no finger can go on from it, or arrive at it. */
export const isTouched = ({ harmonic, artificial }: Place): boolean =>
  harmonic !== undefined || artificial === true

/** Notes that are plucked or already arrived at can be left by an arrival; strokes over many strings cannot. */
export const mayLead = (note: ArrivingNote): boolean => note.attack === 'pluck' || isArrival(note.attack)
