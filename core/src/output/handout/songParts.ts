import { harmonyLine } from '../../arrange/plan/harmonyLine.ts'
import type { ArrangementDoc } from '../../document/arrangement.ts'
import { ticksAt, timelineOf } from '../../document/form/timeline.ts'
import type { SongLine } from '../../document/song.ts'
import { songByPart, timesOver } from '../../document/songByPart.ts'
import { changesOn } from '../../document/songWords.ts'
import type { TuneDoc } from '../../document/tune.ts'
import { chordIn } from '../../music/harmony/chordSymbol.ts'
import type { NoteNaming } from '../../music/pitch/noteNaming.ts'
import type { Sung } from './lyricLines.ts'

/** A line of a song page. */
export interface SongPageLine {
  /** Words with the chord that begins over them; none where the line is played alone, or a remark. */
  readonly sung: readonly Sung[]
  /** The chords of each bar of a line that is played alone. */
  readonly bars?: readonly string[]
  readonly remark?: string
  readonly singer?: string
  /** How often the line is played in all. */
  readonly times: number
}

/** A part of a song page. `again`: it stands there already, word for word and chord for chord. */
export interface SongPart {
  readonly name: string
  readonly times: number
  readonly lines: readonly SongPageLine[]
  readonly again: boolean
}

/**
 * The words of a song part by part, with the chords as the hand calls them, or as they sound; none for a tune without such
 * words.
 */
export function songParts(
  tune: TuneDoc,
  doc: ArrangementDoc,
  naming: NoteNaming,
  called: 'shape' | 'sounding' = 'shape',
): SongPart[] {
  const { measures } = tune
  const timeline = timelineOf(measures)
  const names = new Map(
    harmonyLine(tune, timeline, doc.setup.capo[0]!, doc.transposed).map((h) => [
      h.start,
      h[called] ? chordIn(naming, h[called]) : h.symbol,
    ]),
  )
  const nameAt = (pos: { measure: string; tick: number }) => names.get(ticksAt(timeline, pos)) ?? ''
  const indexOf = (line: SongLine) => timeline.indexOf.get(line.measures[0] ?? '') ?? -1
  const lineOf = (line: SongLine): SongPageLine => {
    if (line.kind === 'remark') return { sung: [], remark: line.text, times: 1 }
    const from = indexOf(line)
    const who = line.singer === undefined ? {} : { singer: line.singer }
    const times = timesOver(measures, from, from + line.measures.length - 1)
    if (line.text !== '') return { sung: sungOn(tune, line, nameAt), times, ...who }
    const bars = line.measures.map((id) =>
      tune.chords
        .filter((c) => c.pos.measure === id)
        .map((c) => nameAt(c.pos))
        .join(' '),
    )
    return { sung: [], bars, times, ...who }
  }
  const seen = new Set<string>()
  return songByPart(tune).map(({ name, lines: written, from, to }): SongPart => {
    const lines = written.map(lineOf)
    const times = timesOver(measures, from, to)
    // One line that is the whole part is repeated as the part is.
    const own = lines.length === 1 && times > 1 ? lines.map((l) => ({ ...l, times: 1 })) : lines
    const text = JSON.stringify([name, own])
    const again = name !== '' && seen.has(text)
    seen.add(text)
    return { name, times, lines: own, again }
  })
}

/** The words of a line cut at its changes of chord. */
function sungOn(
  tune: TuneDoc,
  line: SongLine,
  nameAt: (pos: { measure: string; tick: number }) => string,
): Sung[] {
  const changes = changesOn(tune, line)
  if (changes.length === 0) return [{ chord: '', text: line.text }]
  const before = changes[0]!.at > 0 ? [{ chord: '', text: line.text.slice(0, changes[0]!.at) }] : []
  return [
    ...before,
    ...changes.map(({ chord, at }, i): Sung => ({
      chord: nameAt(chord.pos),
      text: line.text.slice(at, changes[i + 1]?.at ?? line.text.length),
    })),
  ]
}
