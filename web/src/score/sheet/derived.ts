import { present } from '@velvet-porch/core/invariant'
/** One thing for every measure or system, with what each was made from. */
export interface Derived<T> {
  readonly from: readonly (readonly unknown[])[]
  readonly made: readonly T[]
}

/**
 * Makes one thing of each list of parts. Where the parts are the same objects as before, so is what was made of them; and
 * where nothing at all is new, the whole is the one before.
 * @param alike true where what is made anew is no other than before: then the one before stays
 */
export function derived<T>(
  before: Derived<T> | undefined,
  from: readonly (readonly unknown[])[],
  make: (index: number) => T,
  alike: (a: T, b: T) => boolean = () => false,
): Derived<T> {
  const kept = (i: number) =>
    before !== undefined && i < before.from.length && same(before.from[i]!, from[i]!)
  const stays = from.map((_, i) => kept(i))
  if (before?.from.length === from.length && stays.every(Boolean)) return before
  const made = from.map((_, i) => {
    const old = before?.made[i]
    if (stays[i]) return present(old)
    const own = make(i)
    return old !== undefined && alike(old, own) ? old : own
  })
  // A list of the same things is the same list.
  return { from, made: before && same(before.made, made) ? before.made : made }
}

const same = (a: readonly unknown[], b: readonly unknown[]): boolean =>
  a.length === b.length && a.every((x, i) => x === b[i])
