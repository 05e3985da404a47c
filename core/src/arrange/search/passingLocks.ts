import type { Id } from '../../document/ids.ts'
import { isLockOf, lockOf, type Lock } from '../../document/locks.ts'

/**
 * A lock of one solve: the teacher's own, or one that stands for something else. Those do not enter the document, and are not
 * the teacher's to take off.
 */
export type PassingLock = Lock & {
  /** What it stands for: a note of a locked measure, the place of a typed note, a measure around a selection. */
  readonly standsFor?: 'measure' | 'typed' | 'around'
  /** The teacher's lock behind it. */
  readonly behind?: Id
}

/** The places of typed notes as locks, so that the search finds its way around them. */
export const typedPlaces = (locks: readonly Lock[]): PassingLock[] =>
  locks
    .filter(isLockOf('typed'))
    .filter((l) => !l.value.bend)
    .map((l) => ({
      ...lockOf('place', `${l.id} place`, l.target, l.value.place),
      standsFor: 'typed',
      behind: l.id,
    }))

/** A locked measure as locks of its single notes. */
export const locksOfMeasures = (locks: readonly PassingLock[]): PassingLock[] =>
  locks.flatMap((l): PassingLock[] => {
    if (l.field !== 'measure') return []
    const passing = { standsFor: l.standsFor ?? 'measure', ...(l.standsFor ? {} : { behind: l.id }) } as const
    return l.value.notes.flatMap((n, i) => [
      { ...lockOf('place', `${l.id} ${i} place`, n.id, n.place), ...passing },
      { ...lockOf('left', `${l.id} ${i} finger`, n.id, n.left), ...passing },
    ])
  })

/** The teacher's locks among these, or behind them; each once. */
export const ownLocks = (locks: readonly PassingLock[]): Id[] => [
  ...new Set(locks.flatMap((l) => l.behind ?? (l.standsFor ? [] : [l.id]))),
]
