import { beatStarts } from '../music/time/metre.ts'
import type { SongLine } from './song.ts'
import type { ChordMark, Measure, TuneDoc } from './tune.ts'

/** A change of chord with its bar of the line, from 0, and the share of the bar before it. */
export interface PlacedChange {
  readonly chord: ChordMark
  readonly bar: number
  readonly share: number
}

/** A line of a song as bars: how many, whether that is a guess, and where its changes fall. */
export interface LineBars {
  readonly line: SongLine
  readonly bars: number
  readonly beats: number
  readonly guessed: boolean
  readonly changes: readonly PlacedChange[]
}

/** The measures of a line that are still there, in the order of the tune. */
export function measuresOfLine(tune: TuneDoc, line: SongLine): Measure[] {
  const own = new Set(line.measures)
  return tune.measures.filter((m) => own.has(m.id))
}

/** The changes of chord in the measures of a line, one after the other. */
export const changesInBars = (tune: TuneDoc, line: SongLine): PlacedChange[] =>
  measuresOfLine(tune, line).flatMap((m, bar) =>
    tune.chords
      .filter((c) => c.pos.measure === m.id)
      .sort((a, b) => a.pos.tick - b.pos.tick)
      .map((chord): PlacedChange => ({ chord, bar, share: chord.pos.tick / m.length })),
  )

/** The sung lines of a song with their bars; a line whose measures are all gone is none. */
export const lineBars = (tune: TuneDoc): LineBars[] =>
  (tune.song?.lines ?? []).flatMap((line): LineBars[] => {
    const [first, ...more] = line.kind === 'sung' ? measuresOfLine(tune, line) : []
    if (!first) return []
    return [
      {
        line,
        bars: 1 + more.length,
        beats: beatStarts(first.metre).length,
        guessed: [first, ...more].some((m) => m.provenance === 'guessed'),
        changes: changesInBars(tune, line),
      },
    ]
  })
