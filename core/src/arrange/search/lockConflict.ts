import type { PassingLock } from './passingLocks.ts'

/** Locks that no hand can keep together. */
export class LockConflict extends Error {
  override readonly name = 'LockConflict'
  constructor(
    /** The locks that contradict: one that is impossible by itself, or those that exclude each other. */
    readonly locks: readonly PassingLock[],
    /** Index of the measure. */
    readonly measure: number,
  ) {
    super(`locks contradict: ${locks.map((l) => l.id).join(', ')}`)
  }
}
