import { knownIn } from '../../invariant.ts'
import type { AbcSpan, ChordMark, TuneDoc } from '../../document/tune.ts'

/** A text with chord symbols written in, and those that fall between notes, where ABC has no place for them. */
export interface WrittenChords {
  readonly text: string
  readonly left: readonly ChordMark[]
}

/** A quoted chord symbol; quotes that start with a place sign are annotations. */
const CHORD_SYMBOL = /"(?![\^_<>@])[^"\n]*"[ \t]*/g

/**
 * Writes a tune's chord marks into its ABC as quoted symbols, each before the note or rest of the melody that starts
 * with it. Chord symbols that stand there already are taken out; annotations (`"^text"`) stay.
 * @param spans where each event stands in the text
 */
export function writeChords(text: string, tune: TuneDoc, spans: readonly AbcSpan[]): WrittenChords {
  const marks = new Map(tune.chords.map((c) => [`${c.pos.measure}@${c.pos.tick}`, c]))
  const spanOf = new Map(spans.map((s) => [s.target, s]))
  const melody = tune.events
    .filter((e) => e.voice === 0 && spanOf.has(e.id))
    .map((e) => ({ mark: marks.get(`${e.pos.measure}@${e.pos.tick}`), ...knownIn(spanOf, e.id) }))
    .sort((a, b) => b.from - a.from)
  const placed = new Set<ChordMark>()
  let written = text
  for (const { mark, from, to } of melody) {
    const plain = text.slice(from, to).replace(CHORD_SYMBOL, '')
    if (mark) placed.add(mark)
    written = written.slice(0, from) + (mark ? `"${mark.symbol}"` : '') + plain + written.slice(to)
  }
  return { text: written, left: tune.chords.filter((c) => !placed.has(c)) }
}
