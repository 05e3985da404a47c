/**
 * From schema 1 to 2 of an arrangement: that a note was written by hand, where the arranger has none, was known by its id and
 * is a field now. Works on documents, layers and the patches of their history alike. Frozen: it never changes.
 */
export function withHandOrigin(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(withHandOrigin)
  if (typeof value !== 'object' || value === null) return value
  const all = Object.entries(value).map(([key, inner]) => [key, withHandOrigin(inner)] as const)
  const own = Object.fromEntries(all)
  const { id } = value as { id?: unknown }
  const isNote = typeof id === 'string' && 'place' in value && 'role' in value
  return isNote && id.startsWith('t.') ? { ...own, origin: 'hand' } : own
}
