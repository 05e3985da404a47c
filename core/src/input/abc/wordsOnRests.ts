import { LIMITS, cutTo } from '../../document/limits.ts'
import type { SongLine } from '../../document/song.ts'
import type { Id } from '../../document/ids.ts'
import { placesIn } from '../problem.ts'
import type { Rewritten } from '../rewritten.ts'
import { wordsOf } from './lyricLines.ts'
import type { BookTune } from './splitBook.ts'
import type { VoiceReading } from './voiceReading.ts'

/** The words of a `w:` line as a text: syllables of one word together. */
const textOf = (line: string): string =>
  wordsOf(line.slice(2).replace(/([^\\])%.*$/, '$1'))
    .map((w) => (w.kind === 'syllable' ? w.text.trim() + (w.goesOn ? '' : ' ') : ''))
    .join('')
    .trim()

/**
 * The words of a tune that has rests and no notes: each `w:` line over the measures of the line of music that it stands under, or
 * over. They belong to the measures, as those of a song do; further lines under the same measures are further verses.
 */
export function wordsOnRests(voice: VoiceReading, ready: Rewritten, source: BookTune): SongLine[] {
  const lines = source.text.split('\n')
  const placeOf = placesIn(source.text)
  const measuresOf = new Map<number, Set<Id>>()
  const spans = new Map(voice.spans.map((s) => [s.target, s.from]))
  for (const e of voice.events) {
    const from = spans.get(e.id)
    if (from === undefined) continue
    const line = placeOf(ready.toSource(from)).line - 1
    const own = measuresOf.get(line) ?? new Set()
    own.add(e.pos.measure)
    measuresOf.set(line, own)
  }
  const firstWords = lines.findIndex((l) => /^w:/.test(l))
  const above = firstWords >= 0 && firstWords < Math.min(...measuresOf.keys())
  const verses: Omit<SongLine, 'id'>[][] = []
  const verse = new Map<number, number>()
  for (const [i, line] of lines.entries()) {
    if (!/^w:/.test(line)) continue
    let music = above ? i + 1 : i - 1
    while (music >= 0 && music < lines.length && !measuresOf.has(music)) music += above ? 1 : -1
    const measures = measuresOf.get(music)
    if (!measures) continue
    const number = verse.get(music) ?? 0
    verse.set(music, number + 1)
    const { text } = cutTo(textOf(line), LIMITS.songLine)
    verses[number] ??= []
    if (text !== '') verses[number].push({ kind: 'sung', text, changes: [], measures: [...measures] })
  }
  // A song is read verse by verse, whatever stands beneath what.
  return verses.flat().map((line, i) => ({ id: `l${i + 1}`, ...line }))
}
