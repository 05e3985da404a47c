/** A stable identifier inside or across documents. */
export type Id = string

/** Hands out ids. Injected, so that reading the same text twice gives the same document in tests. */
export type NewId = () => Id

/** A counter with a prefix: `m1`, `m2`, … unique inside one document. */
export function counterIds(prefix: string, start = 1): NewId {
  let next = start
  return () => prefix + String(next++)
}
