/** A tune of the archive as the server sends it. */
export interface ArchiveTune {
  readonly title: string
  readonly composer: string
  readonly note: string
  readonly abc: string
}

/** Asks the tune archive. @throws Error where the server does not answer */
export async function searchArchive(query: string, signal: AbortSignal): Promise<readonly ArchiveTune[]> {
  const reply = await fetch(`/api/archive?q=${encodeURIComponent(query)}`, { signal })
  if (!reply.ok) throw new Error(`archive: ${reply.status}`)
  return ((await reply.json()) as { tunes: ArchiveTune[] }).tunes
}
