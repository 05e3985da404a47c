import type { LeftFinger, PickingSign } from '../instrument/hand.ts'
import type { Place } from '../instrument/setup.ts'
import type { Level, Ornament, Style } from './style.ts'
import type { Attack, PressedPlace, TabNote } from './tab.ts'
import type { Id } from './ids.ts'
import type { School } from './school.ts'
import type { Pos } from './tune.ts'

/** How a melody note is to be sounded: by the picking hand, pushed up before the stroke, or from the note before it. */
export const ASKED_ARTICULATIONS = [
  'pluck',
  'preBend',
  'hammer',
  'pull',
  'slide',
  'bend',
] as const satisfies readonly (Attack | 'preBend')[]
export type AskedArticulation = (typeof ASKED_ARTICULATIONS)[number]

/** What a locked measure keeps: its style and level, and every note's place and finger. */
export interface LockedMeasure {
  readonly style: Style
  readonly ornament?: Ornament
  readonly level: Level
  readonly school?: School
  readonly notes: readonly { readonly id: Id; readonly place: Place; readonly left: LeftFinger }[]
}

/**
 * What each kind of lock keeps. The first three belong to a note of the arranger's, `grip` to a grip, `measure` to a measure.
 * The last three hold what was written by hand: a whole note, that a note is left out (where it stood), a picking sign.
 */
export interface LockValues {
  readonly place: Place
  readonly left: LeftFinger
  readonly attack: AskedArticulation
  readonly grip: readonly PressedPlace[]
  readonly measure: LockedMeasure
  readonly typed: TabNote
  readonly erased: Pos
  readonly right: PickingSign
}
export type LockField = keyof LockValues

/** A lock of one kind. */
export interface LockOf<F extends LockField> {
  readonly id: Id
  /** The note, grip or measure that it belongs to. */
  readonly target: Id
  readonly field: F
  readonly value: LockValues[F]
}

/** Something that stays as it is while the rest is arranged. */
export type Lock = { readonly [F in LockField]: LockOf<F> }[LockField]

/** A lock that has no id yet. */
export type NewLock = { readonly [F in LockField]: Omit<LockOf<F>, 'id'> }[LockField]

/** A lock of one kind, whichever that is: the value belongs to the field. */
export const lockOf = <F extends LockField>(field: F, id: Id, target: Id, value: LockValues[F]): Lock =>
  ({ id, target, field, value }) as LockOf<F> as Lock

/** The id of the one lock of its kind that a target has. */
export const lockId = (field: LockField, target: Id): Id => `${field}.${target}`

/** A lock with an id. */
export const withId = (lock: NewLock, id: Id): Lock => ({ ...lock, id })

/** True for a lock of one kind. */
export const isLockOf =
  <F extends LockField>(field: F) =>
  (lock: Lock): lock is Extract<Lock, { readonly field: F }> =>
    lock.field === field

/** Kinds of lock that hold what was written by hand. */
type ManualField = 'typed' | 'erased' | 'right'

/** True for a lock that holds what was written by hand: it is laid over the finished tab. */
export const isManual = <L extends Lock>(lock: L): lock is L & LockOf<ManualField> =>
  lock.field === 'typed' || lock.field === 'erased' || lock.field === 'right'

/** Place and finger of a note as two locks. */
export const placeAndFinger = ({ id, place, left }: Pick<TabNote, 'id' | 'place' | 'left'>): NewLock[] => [
  { target: id, field: 'place', value: place },
  { target: id, field: 'left', value: left },
]
