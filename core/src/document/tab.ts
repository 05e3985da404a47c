import type { LeftFinger, PickingSign } from '../instrument/hand.ts'
import type { Place } from '../instrument/setup.ts'
import type { Expression } from './expression.ts'
import type { Id } from './ids.ts'
import type { Duration, Pos } from './tune.ts'

export type Role = 'melody' | 'harmony' | 'bass' | 'fill'

/** One note of the tab, as written. How long the finger holds and how long it rings are derived. */
export interface TabNote extends Expression {
  readonly id: Id
  /** Written by hand where the arranger has no note; absent: the arranger's own, also where a hand changed it. */
  readonly origin?: 'hand'
  /** The first of the tune's events that this note plays. */
  readonly sourceId?: Id
  readonly pos: Pos
  readonly dur: Duration
  readonly role: Role
  /** 1 melody, 2 the voices below it, `BACKING_VOICE` an accompaniment. */
  readonly notationVoice: number
  readonly place: Place
  readonly left: LeftFinger
  readonly right: PickingSign
  readonly attack: Attack
  /** Short notes before it, in order; the note itself arrives from the last of them. */
  readonly graces?: readonly GraceNote[]
  readonly vibrato?: true
  /** The string is to be stopped when the next note sounds. */
  readonly damp?: true
  /** Plucked a little below or above its fret, from no written note, and slid to it at once. */
  readonly slideFromBelow?: true
  readonly slideFromAbove?: true
  /** The finger goes on up or down the string at the end, and lets it die away. */
  readonly slideOffUp?: true
  readonly slideOffDown?: true
  /** Rings on beyond its written value for as long as the hand lets it. */
  readonly letRing?: true
  /**
   * Semitones by which the string is pushed up at this note: its pitch is that much over its place. With the attack
   * `bend` it rises there from the note before; plucked it is up before the stroke, or still.
   */
  readonly bend?: number
  /** Played firmly. */
  readonly accent?: true
  /** Damped by the edge of the picking hand. */
  readonly palmMute?: true
  /** Cut short. */
  readonly staccato?: true
  /** One of a chord whose strings are plucked one after the other, the lowest first. */
  readonly rolled?: true
  /** Held beyond its written length. */
  readonly fermata?: true
  /** A few words to the student, at most `LONGEST_REMARK` letters. */
  readonly remark?: string
  /** May be left out: the arrangement holds without it. */
  readonly optional: boolean
}

/** Letters of the longest words to the student: they must fit under the tab. */
export const LONGEST_REMARK = 60

/** Voice of notes that accompany a sung melody. */
export const BACKING_VOICE = 3

/** A short note before another, taken from its time. */
export interface GraceNote {
  readonly place: Place
  readonly left: LeftFinger
  readonly attack: 'pluck' | Arrival
  /** May be left out: the source does not have it. */
  readonly optional?: true
}

/**
 * Ways in which the fretting hand sounds a note alone, from the note before it on the same string. A *bend* pushes the
 * string up, a *release* lets it back.
 */
export const ARRIVALS = ['hammer', 'pull', 'slide', 'bend', 'release'] as const
export type Arrival = (typeof ARRIVALS)[number]

export const isArrival = (attack: string): attack is Arrival =>
  (ARRIVALS as readonly string[]).includes(attack)

/**
 * How a note is sounded. A *tremolo* repeats the stroke for as long as the note is written; a *brush* sounds
 * neighbouring strings one after the other in one stroke; a *muted* stroke sounds no pitch; a *bottle* note is plucked
 * with the string stopped by a bottleneck, right over the fret.
 */
export const ATTACKS = ['pluck', 'tremolo', 'brush', 'muted', 'bottle', ...ARRIVALS] as const
export type Attack = (typeof ATTACKS)[number]

/** What joins two notes: the second is reached from the first by a slide, hammer-on or pull-off. */
export interface Span {
  readonly id: Id
  readonly kind: Arrival
  readonly from: Id
  readonly to: Id
}

/** One finger on a string at a fret. `F` is how the finger is named: `'T'` for the thumb in documents. */
export interface PressedPlace<F = Exclude<LeftFinger, 0>> extends Place {
  readonly finger: F
}

/** What the fretting hand holds from `pos` until the next grip. */
export interface Grip {
  readonly id: Id
  readonly pos: Pos
  readonly until: Pos
  readonly pressed: readonly PressedPlace[]
  /** Fingers that are down beside those that sound: under a hammer-on, ready for a pull-off. */
  readonly ready?: readonly PressedPlace[]
  /** Fret under the index finger, counted from the capo. */
  readonly position: number
  /** Name of the chord shape that is held, whole or in part. */
  readonly shape?: string
  /** Why this grip: terms of the solver's cost, largest first. */
  readonly costs: readonly CostTerm[]
}

/** One term of the solver's cost, with its quantity in its own unit, for the reasons shown to the player. */
export interface CostTerm {
  readonly term: string
  readonly cost: number
  readonly quantity?: number
  readonly unit?: 'mm' | 's' | 'beats' | 'fingers' | 'frets' | 'strings'
}
