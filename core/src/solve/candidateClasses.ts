import type { CandidateClasses, CandidateSet } from './candidate.ts'

/** What a join may look at besides the fingers; bits of a mask. */
export const LOOKS = { melody: 1, bass: 2, inner: 4, planted: 8, frame: 16, openOnly: 32 } as const

/**
 * Groups of candidates with the same fingers, the same position, and the same of everything in the mask. All of a group
 * cost the same to reach and to leave, so the search tries one of them.
 */
export function classesOf(set: CandidateSet, mask: number): CandidateClasses {
  const known = set.classes.get(mask)
  if (known) return known
  let ids: Int32Array = new Int32Array(set.list.length)
  ids = refined(ids, set.positionMm)
  for (const codes of set.fingers) ids = refined(ids, codes)
  for (const look of Object.keys(LOOKS) as (keyof typeof LOOKS)[])
    if (mask & LOOKS[look]) ids = refined(ids, set[look])
  const member: number[] = []
  ids.forEach((id, i) => (member[id] ??= i))
  const classes = { of: ids, member: Int32Array.from(member) }
  set.classes.set(mask, classes)
  return classes
}

/** Splits groups by one more value; groups are numbered in the order of their first members. */
function refined(ids: Int32Array, values: ArrayLike<number>): Int32Array {
  const found = new Map<number, Map<number, number>>()
  let next = 0
  return ids.map((id, i) => {
    let inside = found.get(values[i]!)
    if (!inside) found.set(values[i]!, (inside = new Map()))
    let own = inside.get(id)
    if (own === undefined) inside.set(id, (own = next++))
    return own
  })
}
