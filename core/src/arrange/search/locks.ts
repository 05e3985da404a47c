import { isManual, type LockOf } from '../../document/locks.ts'
import type { Id } from '../../document/ids.ts'
import { fingerNumber, holdSame } from '../../hand/grip/pressed.ts'
import type { Plan } from '../plan/plan.ts'
import { keyFinger, placeKey, samePlace, type Candidate, type VoiceKey } from './candidate.ts'
import type { PassingLock } from './passingLocks.ts'
import type { SliceLock, VoiceLock } from './sliceLock.ts'
import { bassNoteId, chordNoteId, gripId, innerNoteId, melodyNoteId } from '../../document/noteIds.ts'

export interface LocksBySlice {
  readonly bySlice: ReadonlyMap<number, SliceLock>
  /** The locks that act on each slice. */
  readonly acting: ReadonlyMap<number, readonly PassingLock[]>
  /** Locks whose note or grip does not exist in this plan. */
  readonly idle: readonly Id[]
}

type Voice = 'melody' | 'bass' | 'inner' | 'chord'

/** Finds for every lock the slice and the voice that it fixes. */
export function locksBySlice(
  plan: Plan,
  measureIds: readonly Id[],
  locks: readonly PassingLock[],
): LocksBySlice {
  const bySlice = new Map<number, SliceLock>()
  const acting = new Map<number, PassingLock[]>()
  const idle: Id[] = []
  if (locks.length === 0) return { bySlice, acting, idle }
  const targets = targetsOf(plan, measureIds)
  for (const lock of locks) {
    // What was written by hand is laid over the finished tab.
    if (lock.field === 'measure' || isManual(lock)) continue
    const target = targets.get(lock.target)
    if (!target) {
      if (lock.standsFor !== 'typed') idle.push(lock.id)
      continue
    }
    // How a note is sounded is not the search's business.
    if (lock.field === 'attack') continue
    const before = bySlice.get(target.slice) ?? {}
    bySlice.set(target.slice, withLock(before, target, lock))
    acting.set(target.slice, [...(acting.get(target.slice) ?? []), lock])
  }
  return { bySlice, acting, idle }
}

interface Target {
  readonly slice: number
  readonly voice: Voice | 'grip'
  readonly nth: number
}

function targetsOf(plan: Plan, measureIds: readonly Id[]): Map<Id, Target> {
  const targets = new Map<Id, Target>()
  plan.slices.forEach((slice, t) => {
    const at = {
      measure: measureIds[slice.measure]!,
      tick: slice.start - plan.timeline.starts[slice.measure]!,
    }
    targets.set(gripId(at), { slice: t, voice: 'grip', nth: 0 })
    if (slice.melodyOnset)
      targets.set(melodyNoteId(plan.melody[slice.melody]!.sourceId), { slice: t, voice: 'melody', nth: 0 })
    if (slice.bassOnset) {
      const part = plan.bass[slice.bass]!.part
      targets.set(part ? melodyNoteId(part.sourceId) : bassNoteId(at), { slice: t, voice: 'bass', nth: 0 })
    }
    if (!slice.innerOnset) return
    const { kind, voices } = plan.inner[slice.inner]!
    if (kind !== 'chord') targets.set(innerNoteId(at), { slice: t, voice: 'inner', nth: 0 })
    else
      for (let nth = 0; nth < voices; nth++)
        targets.set(chordNoteId(at, nth), { slice: t, voice: 'chord', nth })
  })
  return targets
}

function withLock(
  before: SliceLock,
  { voice, nth }: Target,
  lock: LockOf<'place'> | LockOf<'left'> | LockOf<'grip'>,
): SliceLock {
  if (lock.field === 'grip') {
    if (voice !== 'grip') return before
    return { ...before, pressed: lock.value.map((p) => ({ ...p, finger: fingerNumber(p.finger) })) }
  }
  if (voice === 'grip') return before
  const own: VoiceLock = lock.field === 'place' ? { place: lock.value } : { finger: fingerNumber(lock.value) }
  if (voice === 'chord')
    return { ...before, chord: { ...before.chord, [nth]: { ...before.chord?.[nth], ...own } } }
  return { ...before, [voice]: { ...before[voice], ...own } }
}

/** True where a candidate keeps everything that is fixed in its slice. */
export function keepsLock(c: Candidate, lock: SliceLock): boolean {
  if (
    !keepsVoice(c.melody, lock.melody) ||
    !keepsVoice(c.bass, lock.bass) ||
    !keepsVoice(c.inner, lock.inner)
  )
    return false
  for (const [nth, own] of Object.entries(lock.chord ?? {}))
    if (!keepsVoice(c.chord[Number(nth)] ?? 0, own)) return false
  return !lock.pressed || holdSame(c.pressed, lock.pressed)
}

function keepsVoice(key: VoiceKey, lock: VoiceLock | undefined): boolean {
  if (!lock) return true
  if (key === 0) return false
  if (lock.finger !== undefined && keyFinger(key) !== lock.finger) return false
  return !lock.place || samePlace(key, placeKey(lock.place, 0))
}
