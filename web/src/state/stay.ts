/** Asks the browser once not to clear what is kept here, when the first tune of the teacher's own is. It may refuse. */
export async function askToStay(): Promise<void> {
  try {
    const { storage } = navigator
    if (!(await storage.persisted())) await storage.persist()
  } catch {
    // A browser that does not know of this keeps what it keeps.
  }
}

/** Share of its room that storage may fill before it is said. */
const NEARLY_FULL = 0.85

/** True where the room that the browser gives is nearly used up. */
export async function isNearlyFull(): Promise<boolean> {
  try {
    const { usage = 0, quota = 0 } = await navigator.storage.estimate()
    return quota > 0 && usage / quota > NEARLY_FULL
  } catch {
    return false
  }
}
