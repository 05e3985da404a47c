const key = (tuneId: string) => `velvet-porch.draft.${tuneId}`

/** Text that is being typed, kept at every key so that a killed tab loses nothing, readable or not. */
export function keepDraft(tuneId: string, text: string): void {
  try {
    localStorage.setItem(key(tuneId), text)
  } catch {
    // Full or forbidden storage: the database still gets the text a moment later.
  }
}

export function keptDraft(tuneId: string): string | undefined {
  try {
    return localStorage.getItem(key(tuneId)) ?? undefined
  } catch {
    return undefined
  }
}

export function dropDraft(tuneId: string): void {
  try {
    localStorage.removeItem(key(tuneId))
  } catch {
    // Nothing was kept.
  }
}
