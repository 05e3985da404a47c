import type { Ticks } from './ticks.ts'

/** Index of the first of a list sorted by start that does not start before a time; its length where all do. */
export function firstAtOrAfter(list: readonly { readonly start: Ticks }[], at: Ticks): number {
  let low = 0
  let high = list.length
  while (low < high) {
    const mid = (low + high) >> 1
    if (list[mid]!.start < at) low = mid + 1
    else high = mid
  }
  return low
}
