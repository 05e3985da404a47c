import type { CandidateClasses, CandidateSet } from './candidate.ts'

/** What a join may look at besides the fingers; bits of a mask. */
export const LOOKS = {
  melody: 1,
  bass: 2,
  inner: 4,
  planted: 8,
  heldShape: 16,
  openOnly: 32,
  lower: 64,
} as const

/**
 * Groups of candidates with the same fingers, the same position, and the same of everything in the mask. All of a group
 * cost the same to reach and to leave, so the search tries one of them.
 */
export function classesOf(set: CandidateSet, mask: number): CandidateClasses {
  const known = set.classes.get(mask)
  if (known) return known
  const { positionMm, codes, fingers } = set
  let ids: Int32Array = numbered(set.list.length, (i) => positionMm[i]!)
  for (let f = 0; f < fingers; f++) ids = refined(ids, (i) => codes[i * fingers + f]!)
  for (const look of Object.keys(LOOKS) as (keyof typeof LOOKS)[])
    if (mask & LOOKS[look]) ids = refined(ids, (i) => set[look][i]!)
  const member: number[] = []
  ids.forEach((id, i) => (member[id] ??= i))
  const classes = { of: ids, member: Int32Array.from(member) }
  set.classes.set(mask, classes)
  return classes
}

/** Splits groups by one more value, a whole number. */
function refined(ids: Int32Array, valueOf: (i: number) => number): Int32Array {
  return numbered(ids.length, (i) => (valueOf(i) + 1) * ids.length + ids[i]!)
}

/** Groups by equal keys, numbered in the order of their first members. */
function numbered(size: number, keyOf: (i: number) => number): Int32Array {
  const found = new Map<number, number>()
  const ids = new Int32Array(size)
  for (let i = 0; i < size; i++) {
    const key = keyOf(i)
    let id = found.get(key)
    if (id === undefined) found.set(key, (id = found.size))
    ids[i] = id
  }
  return ids
}
