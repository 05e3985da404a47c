import { readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'

export interface ArchiveTune {
  readonly title: string
  readonly composer: string
  readonly note: string
  readonly abc: string
}

const field = (text: string, letter: string) =>
  new RegExp(`^${letter}:(.*)$`, 'm').exec(text)?.[1]?.trim() ?? ''

/** Reads the shipped tunes. The archive is a stand-in for an outside service. */
export function loadArchive(): ArchiveTune[] {
  const text = readFileSync(fileURLToPath(new URL('../../demo/tunes.abc', import.meta.url)), 'utf8')
  return text
    .split(/^(?=X:)/m)
    .filter((t) => t.startsWith('X:'))
    .map((abc) => ({
      title: field(abc, 'T'),
      composer: field(abc, 'C'),
      note: field(abc, 'N'),
      abc: `${abc.trim()}\n`,
    }))
}

/** Tunes whose title, composer or note holds every word of the query. */
export function searchTunes(tunes: readonly ArchiveTune[], query: string): ArchiveTune[] {
  const words = query.toLowerCase().split(/\s+/).filter(Boolean)
  return tunes.filter((t) =>
    words.every((w) => `${t.title} ${t.composer} ${t.note}`.toLowerCase().includes(w)),
  )
}
