/** What is on the page and not yet in storage. */
const writes = new Set<Promise<void>>()

/** Announces a write that is on its way; it leaves the list by itself. */
export function onItsWay(write: Promise<void>): void {
  writes.add(write)
  void write.finally(() => writes.delete(write))
}

/** Waits until storage holds all that is on the page: what reads documents from there begins with it. */
export async function allWritten(): Promise<void> {
  while (writes.size > 0) await Promise.allSettled(writes)
}
