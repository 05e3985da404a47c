import type { Patch } from 'immer'

/** What leads from one state of a document to a later one, and back. */
export interface Difference<T> {
  /** The later state. What did not change in it is the earlier one's own objects. */
  readonly data: T
  readonly patches: readonly Patch[]
  readonly inverse: readonly Patch[]
}

type Path = readonly (string | number)[]

/** Patches in the order in which they are applied. */
interface Patches {
  readonly there: Patch[]
  /** In the order of `there`; they are taken back from the end. */
  readonly back: Patch[]
}

/**
 * Compares two states of plain data. Members of objects are compared one by one; items of lists are exchanged whole, and
 * equal heads and tails of a list stay as they are, so that patches hold only what really changed.
 * @example difference({ list: [1, 2] }, { list: [1, 3] }).patches // one: replace list/1 by 3
 */
export function difference<T extends object>(before: T, after: T): Difference<T> {
  const patches: Patches = { there: [], back: [] }
  const data = differing(before, after, [], patches) as T
  return { data, patches: patches.there, inverse: patches.back.reverse() }
}

const isPlain = (x: unknown): x is Record<string, unknown> =>
  typeof x === 'object' && x !== null && !Array.isArray(x)

function differing(before: unknown, after: unknown, path: Path, patches: Patches): unknown {
  if (before === after) return before
  if (Array.isArray(before) && Array.isArray(after)) return differingList(before, after, path, patches)
  if (isPlain(before) && isPlain(after)) return differingMembers(before, after, path, patches)
  if (sameData(before, after)) return before
  patches.there.push({ op: 'replace', path: [...path], value: after })
  patches.back.push({ op: 'replace', path: [...path], value: before })
  return after
}

function differingMembers(
  before: Record<string, unknown>,
  after: Record<string, unknown>,
  path: Path,
  patches: Patches,
): unknown {
  const made: Record<string, unknown> = {}
  const count = patches.there.length
  for (const key of new Set([...Object.keys(before), ...Object.keys(after)])) {
    const own = [...path, key]
    const [was, is] = [before[key], after[key]]
    if (was !== undefined && is !== undefined) made[key] = differing(was, is, own, patches)
    else if (is !== undefined) {
      made[key] = is
      patches.there.push({ op: 'add', path: own, value: is })
      patches.back.push({ op: 'remove', path: own })
    } else if (was !== undefined) {
      patches.there.push({ op: 'remove', path: own })
      patches.back.push({ op: 'add', path: own, value: was })
    }
  }
  return patches.there.length === count ? before : made
}

function differingList(
  before: readonly unknown[],
  after: readonly unknown[],
  path: Path,
  { there, back }: Patches,
): unknown {
  const shorter = Math.min(before.length, after.length)
  let head = 0
  while (head < shorter && sameData(before[head], after[head])) head++
  let tail = 0
  while (tail < shorter - head && sameData(before.at(-1 - tail), after.at(-1 - tail))) tail++
  const removed = before.length - tail
  const added = after.length - tail
  if (head === removed && head === added) return before
  const middle = after.slice(head, added)
  for (let i = head; i < Math.min(removed, added); i++) {
    if (sameData(before[i], after[i])) {
      middle[i - head] = before[i]
      continue
    }
    there.push({ op: 'replace', path: [...path, i], value: after[i] })
    back.push({ op: 'replace', path: [...path, i], value: before[i] })
  }
  for (let i = removed - 1; i >= added; i--) {
    there.push({ op: 'remove', path: [...path, i] })
    back.push({ op: 'add', path: [...path, i], value: before[i] })
  }
  for (let i = removed; i < added; i++) {
    there.push({ op: 'add', path: [...path, i], value: after[i] })
    back.push({ op: 'remove', path: [...path, i] })
  }
  return [...before.slice(0, head), ...middle, ...before.slice(removed)]
}

/** Equality of plain data; absent and undefined members are the same. */
function sameData(a: unknown, b: unknown): boolean {
  if (a === b) return true
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false
  const [x, y] = [a as Record<string, unknown>, b as Record<string, unknown>]
  for (const key in x) if (!sameData(x[key], y[key])) return false
  for (const key in y) if (!(key in x) && y[key] !== undefined) return false
  return Array.isArray(a) === Array.isArray(b)
}
