/**
 * Small values that the browser keeps beside the documents. They are nobody's work: where storage is full, forbidden or
 * holds something else, the app goes on without them.
 */

/** What is kept under a name; undefined where nothing is, or nothing that can be read. */
export function keptValue(key: string): unknown {
  try {
    return JSON.parse(localStorage.getItem(key) ?? 'null') ?? undefined
  } catch {
    return undefined
  }
}

/** Keeps a value under a name; undefined keeps none. */
export function keepValue(key: string, value: unknown): void {
  try {
    if (value === undefined) localStorage.removeItem(key)
    else localStorage.setItem(key, JSON.stringify(value))
  } catch {
    // What was not kept holds until the page is closed.
  }
}
