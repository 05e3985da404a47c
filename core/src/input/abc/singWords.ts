import { knownIn } from '../../invariant.ts'
import { cutTo, LIMITS } from '../../document/limits.ts'
import { lineStarts } from '../lineStarts.ts'
import { message } from '../../messages/message.ts'
import { placesIn } from '../problem.ts'
import type { Rewritten } from '../rewritten.ts'
import { sungWords } from './lyricLines.ts'
import type { VoiceReading } from './voiceReading.ts'
import { type BookTune } from './splitBook.ts'
import type { Report } from './voiceReading.ts'

/** Puts the words of the `w:` lines under the notes of the voices. */
export function singWords(
  voices: readonly VoiceReading[],
  ready: Rewritten,
  source: BookTune,
  report: Report,
  reportIn: Report,
): void {
  if (!/^w:/m.test(source.text)) return
  const lines = source.text.split('\n')
  const placeOf = placesIn(source.text)
  const starts = lineStarts(lines)
  const sung = voices.flatMap((voice) => {
    const spans = new Map(voice.spans.map((s) => [s.target, s.from]))
    return voice.events.flatMap((e) => {
      const from = e.pitch && spans.get(e.id)
      return from === undefined
        ? []
        : [{ id: e.id, line: placeOf(ready.toSource(from)).line - 1, measure: e.pos.measure, from }]
    })
  })
  const { verses, left } = sungWords(lines, sung)
  const fromOf = new Map(sung.map((n) => [n.id, n.from]))
  for (const { line, words } of left)
    reportIn(
      'warning',
      starts[line]!,
      message('reading.syllablesLeft', { count: words.length, words: words.slice(0, 6).join(' ') }),
    )
  for (const voice of voices)
    voice.events.forEach((e, i) => {
      const own = verses.get(e.id)
      if (!own || own.every((v) => v === '' || v === '-')) return
      const [lyric = '', ...moreLyrics] = own.map((text) => {
        const { text: kept, cut } = cutTo(text, LIMITS.lyric)
        if (cut)
          report(
            'warning',
            knownIn(fromOf, e.id),
            message('reading.longSyllable', { letters: text.length, most: LIMITS.lyric }),
          )
        return kept
      })
      voice.events[i] = { ...e, lyric, ...(moreLyrics.some(Boolean) ? { moreLyrics } : {}) }
    })
}
