import { isDraft, original } from 'immer'

/**
 * Makes a list equal to a fresh one while touching as little as possible: equal heads and tails stay as they are, so
 * that a command holds only what really changed. The list may be a draft; it is compared by its plain original.
 */
export function mergeList<T>(list: T[], fresh: readonly T[]): void {
  const plain: readonly T[] = isDraft(list) ? original(list)! : list
  const [before, after] = [plain.length, fresh.length]
  let head = 0
  while (head < before && head < after && sameData(plain[head], fresh[head])) head++
  let tail = 0
  const most = Math.min(before, after) - head
  while (tail < most && sameData(plain[before - 1 - tail], fresh[after - 1 - tail])) tail++
  if (before === after) {
    for (let i = head; i < after - tail; i++) if (!sameData(plain[i], fresh[i])) list[i] = fresh[i]!
  } else list.splice(head, before - head - tail, ...fresh.slice(head, after - tail))
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
