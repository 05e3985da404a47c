import { ticksAt, timelineOf } from '../../document/form/timeline.ts'
import { chordIn } from '../../music/harmony/chordSymbol.ts'
import type { ArrangementDoc } from '../../document/arrangement.ts'
import type { TuneDoc } from '../../document/tune.ts'
import { sungIn } from '../../document/verses.ts'
import type { NoteNaming } from '../../music/pitch/noteNaming.ts'
import { harmonyLine } from '../../arrange/plan/harmonyLine.ts'

/** Words with the chord that begins over them; either may be empty. */
export interface Sung {
  readonly chord: string
  readonly text: string
}

/** Measures of words on one line. */
const MEASURES_A_LINE = 4

/** The words verse by verse with the shapes over them, four measures a line; none where nothing is sung. */
export function lyricLines(tune: TuneDoc, doc: ArrangementDoc, naming: NoteNaming): Sung[][] {
  const timeline = timelineOf(tune.measures)
  const sung = sungIn(tune)
  const verses = Math.max(0, ...sung.map((s) => s.verses.length))
  const harmony = harmonyLine(tune, timeline, doc.setup.capo[0]!, doc.transposed).map((h) => ({
    at: h.start,
    chord: h.shape ? chordIn(naming, h.shape) : h.symbol,
  }))
  const lines: Sung[][] = []
  for (let verse = 0; verse < verses; verse++)
    for (let from = 0; from < tune.measures.length; from += MEASURES_A_LINE) {
      const start = timeline.starts[from]!
      const end = timeline.starts[from + MEASURES_A_LINE] ?? timeline.length
      const line = lineOf(
        sung
          .map((s) => ({ at: ticksAt(timeline, s), text: syllableOf(s.verses[verse] ?? '') }))
          .filter((s) => s.at >= start && s.at < end && s.text !== ''),
        harmony.filter((h) => h.at >= start && h.at < end),
      )
      if (line.some((s) => s.text !== '')) lines.push(line)
    }
  return lines
}

const syllableOf = (text: string): string =>
  text.endsWith('-') ? text.slice(0, -1) : text === '' ? '' : `${text} `

/** Syllables run together between one chord and the next. */
function lineOf(
  syllables: readonly { readonly at: number; readonly text: string }[],
  chords: readonly { readonly at: number; readonly chord: string }[],
): Sung[] {
  const starts = [...new Set([...chords.map((c) => c.at), ...syllables.slice(0, 1).map((s) => s.at)])].sort(
    (a, b) => a - b,
  )
  return starts.map((at, i): Sung => {
    const next = starts[i + 1] ?? Infinity
    const text = syllables.filter((s) => s.at >= at && s.at < next).map((s) => s.text)
    return { chord: chords.find((c) => c.at === at)?.chord ?? '', text: text.join('') }
  })
}
