import type { Id } from '../../document/ids.ts'
import type { TuneDoc } from '../../document/tune.ts'
import { versesOf } from '../../document/verses.ts'

/** A syllable of a verse, and where in its word it stands. */
export interface Syllable {
  /** From 1. */
  readonly verse: number
  readonly syllabic: 'single' | 'begin' | 'middle' | 'end'
  readonly text: string
}

/** The syllables under the melody of a tune, by the event on which they are sung. */
export function syllablesOf(tune: TuneDoc): ReadonlyMap<Id, readonly Syllable[]> {
  const isInWord = new Map<number, boolean>()
  const all = new Map<Id, Syllable[]>()
  for (const e of tune.events) {
    if (e.voice !== 0 || e.lyric === undefined) continue
    const own = versesOf(e).flatMap((sung, i): Syllable[] => {
      if (sung === '') return []
      const begun = isInWord.get(i) ?? false
      const goesOn = sung.endsWith('-')
      isInWord.set(i, goesOn)
      const syllabic = begun ? (goesOn ? 'middle' : 'end') : goesOn ? 'begin' : 'single'
      return [{ verse: i + 1, syllabic, text: goesOn ? sung.slice(0, -1) : sung }]
    })
    if (own.length > 0) all.set(e.id, own)
  }
  return all
}
