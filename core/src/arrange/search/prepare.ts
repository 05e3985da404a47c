import type { Id } from '../../document/ids.ts'
import type { Setup } from '../../instrument/setup.ts'
import type { Plan } from '../plan/plan.ts'
import type { CandidateSet } from './candidate.ts'
import { generate } from './generate.ts'
import { LockConflict } from './lockConflict.ts'
import { locksBySlice, type LocksBySlice } from './locks.ts'
import type { PassingLock } from './passingLocks.ts'
import type { Trace } from './shortestPath.ts'
import { requirementOf, type Requirement } from './requirement.ts'
import { newRequirementCache, type RequirementCache } from './requirementCache.ts'

/** A plan with every slice's requirement and candidates: what the search runs over. */
export interface Prepared {
  readonly requirements: readonly Requirement[]
  readonly sets: readonly CandidateSet[]
  readonly locks: LocksBySlice
}

/** Candidates that were generated before, by signature, and the last search; kept between solves of one setup. */
export interface SolveMemory {
  readonly sets: Map<string, CandidateSet>
  readonly requirements: RequirementCache
  /** What each pass of the last search found on its way. */
  readonly traces: (Trace | undefined)[]
}

export const newMemory = (): SolveMemory => ({
  sets: new Map(),
  requirements: newRequirementCache(),
  traces: [],
})

/**
 * Generates the candidates of every slice; yields the share done.
 * @throws LockConflict where the locks of a slice leave no grip
 */
export function* prepare(
  plan: Plan,
  setup: Setup,
  locks: readonly PassingLock[],
  measureIds: readonly Id[],
  memory: SolveMemory,
): Generator<number, Prepared> {
  const fixed = locksBySlice(plan, measureIds, locks)
  const requirements: Requirement[] = []
  const sets: CandidateSet[] = []
  for (let t = 0; t < plan.slices.length; t++) {
    if (t % 32 === 0) yield t / plan.slices.length
    const requirement = requirementOf(plan, t, setup, memory.requirements, fixed.bySlice.get(t))
    let set = memory.sets.get(requirement.signature)
    if (!set) {
      memory.sets.set(requirement.signature, (set = generate(setup, requirement)))
      yield t / plan.slices.length
    }
    if (set.list.length === 0)
      throw new LockConflict(
        blamed(plan, setup, measureIds, fixed.acting.get(t) ?? [], t, memory),
        plan.slices[t]!.measure,
      )
    requirements.push(requirement)
    sets.push(set)
  }
  return { requirements, sets, locks: fixed }
}

/** The fewest of a slice's locks that already contradict: one alone, a pair, or all of them. */
function blamed(
  plan: Plan,
  setup: Setup,
  measureIds: readonly Id[],
  locks: readonly PassingLock[],
  t: number,
  memory: SolveMemory,
): readonly PassingLock[] {
  const fails = (some: readonly PassingLock[]) => {
    const lock = locksBySlice(plan, measureIds, some).bySlice.get(t)
    return generate(setup, requirementOf(plan, t, setup, memory.requirements, lock)).list.length === 0
  }
  const alone = locks.find((l) => fails([l]))
  if (alone) return [alone]
  for (const [i, a] of locks.entries()) for (const b of locks.slice(i + 1)) if (fails([a, b])) return [a, b]
  return locks
}
