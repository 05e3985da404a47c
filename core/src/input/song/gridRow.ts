import type { NoteNaming } from '../../music/pitch/noteNaming.ts'
import { timesOf } from '../times.ts'
import { isBarSign, isGoingOn, rowWords, type RowWord } from './chordRow.ts'
import type { WrittenChord, WrittenRepeat } from './readSong.ts'

/** A line of chords between bar lines, as bars. */
interface GridRow {
  readonly chords: readonly WrittenChord[]
  readonly bars: number
  readonly repeats: readonly WrittenRepeat[]
  /** How often, where the line says so at its end. */
  readonly times: number
}

/** A word that stands for the same again: the measure before, or the two before. */
const SAME = /^%{1,2}$/

/**
 * Reads a line of chords between bar lines: `| C . Am . | G | % | %% |`, `||: C | G :|| x3`. The words of a bar share it
 * evenly, a sign that goes on takes its share too.
 * @param before the chords of the bars before this line, for `%` at its head
 */
export function gridRow(line: string, naming: NoteNaming, before: readonly WrittenChord[][]): GridRow {
  const cells: RowWord[][] = []
  const repeats: WrittenRepeat[] = []
  let cell: RowWord[] = []
  let opened = 0
  let times = 1
  const close = () => {
    if (cell.length > 0) cells.push(cell)
    cell = []
  }
  for (const word of rowWords(line, naming)) {
    if (isBarSign(word.text)) {
      close()
      const ends = /^:/.test(word.text)
      if (ends && cells.length > opened) {
        repeats.push({ from: opened, to: cells.length - 1, times: 2 })
        opened = cells.length
      }
      if (/:$/.test(word.text)) opened = cells.length
      continue
    }
    const count = timesOf(word.text)
    if (count === undefined) cell.push(word)
    else if (repeats.length > 0 && repeats.at(-1)!.to === cells.length - 1 && cell.length === 0)
      repeats[repeats.length - 1] = { ...repeats.at(-1)!, times: count }
    else times = count
  }
  close()
  const bars: WrittenChord[][] = []
  const earlier = (back: number) => bars.at(-back) ?? before.at(-(back - bars.length)) ?? []
  for (const words of cells) {
    const only = words.length === 1 ? words[0] : undefined
    if (only?.text === '%') bars.push(earlier(1).map((c) => ({ ...c, at: only.at })))
    else if (only?.text === '%%') {
      const [first, second] = [earlier(2), earlier(1)]
      bars.push(first.map((c) => ({ ...c, at: only.at })))
      bars.push(second.map((c) => ({ ...c, at: only.at })))
    } else
      bars.push(
        words.flatMap(({ text, at }, i): WrittenChord[] =>
          isGoingOn(text) && !SAME.test(text) ? [] : [{ at, symbol: text, share: i / words.length }],
        ),
      )
  }
  return {
    chords: bars.flatMap((chords, bar) => chords.map((c) => ({ ...c, bar }))),
    bars: bars.length,
    repeats,
    times,
  }
}
