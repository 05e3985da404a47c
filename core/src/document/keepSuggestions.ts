import type { ChordMark, TuneDoc } from './tune.ts'

/**
 * The chords of a tune that was read again: where its text has none of its own, those that were chosen before stay, as
 * far as their measures do.
 */
export function keepSuggestions(
  before: Pick<TuneDoc, 'chords'>,
  fresh: Pick<TuneDoc, 'chords' | 'measures'>,
): readonly ChordMark[] {
  const bare = fresh.chords.every((c) => c.origin === 'suggested')
  const chosen = before.chords.length > 0 && before.chords.every((c) => c.origin === 'suggested')
  if (!bare || !chosen) return fresh.chords
  const measures = new Set(fresh.measures.map((m) => m.id))
  const kept = before.chords.filter((c) => measures.has(c.pos.measure))
  return kept.length > 0 ? kept : fresh.chords
}
