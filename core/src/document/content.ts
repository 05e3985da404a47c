/**
 * Plain data as one text: equal contents give equal texts, whatever the order of an object's keys. What is undefined is
 * not there.
 * @example contentText({ b: 1, a: undefined }) // '{"b":1}'
 */
export const contentText = (value: unknown): string =>
  JSON.stringify(value, (_key, inner: unknown) =>
    inner !== null && typeof inner === 'object' && !Array.isArray(inner) ? inOrder(inner) : inner,
  )

const inOrder = (object: object): object =>
  Object.fromEntries(Object.entries(object).sort(([a], [b]) => (a < b ? -1 : 1)))

/** True where two pieces of plain data hold the same. */
export const sameContent = (a: unknown, b: unknown): boolean => a === b || contentText(a) === contentText(b)
