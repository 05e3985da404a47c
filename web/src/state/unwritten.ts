/** What is on the page and not yet in storage. */
const writes = new Set<Promise<void>>()

/** Announces a write that is on its way; it leaves the list by itself. */
export function untilWritten(write: Promise<void>): void {
  writes.add(write)
  write.catch(tell).finally(() => writes.delete(write))
}

const listeners = new Set<(reason: unknown) => void>()

/** Hears of what could not be written. */
export function onFailedWrite(listener: (reason: unknown) => void): () => void {
  listeners.add(listener)
  return () => listeners.delete(listener)
}

const tell = (reason: unknown) => listeners.forEach((l) => l(reason))

/** Waits until storage holds all that is on the page: what reads documents from there begins with it. */
export async function allWritten(): Promise<void> {
  while (writes.size > 0) {
    await Promise.allSettled(writes)
    // Each leaves the list a turn after it has settled.
    await Promise.resolve()
  }
}
