import type { NoteNaming } from '../../music/pitch/noteNaming.ts'
import { timesOf } from '../times.ts'
import { chordOf, isGoingOn } from './chordRow.ts'
import type { WrittenChord } from './readSong.ts'

/** Words with the chords that stood in brackets inside them. */
export interface BracketedLine {
  readonly text: string
  readonly chords: readonly WrittenChord[]
}

/**
 * Takes the chords out of a line that has them in brackets; undefined where no bracket of it holds a chord.
 * @example bracketedLine('Down the [G]lane', 'letters') // { text: 'Down the lane', chords: [{ at: 9, symbol: 'G' }] }
 */
export function bracketedLine(line: string, naming: NoteNaming): BracketedLine | undefined {
  const inside = [...line.matchAll(/\[([^[\]]*)\]/g)]
  const isChord = (text: string) => chordOf(text, naming).kind !== 'unknown'
  // "[C - G - Am]": several chords share a bracket.
  const chordsIn = (text: string): string[] => {
    const words = text
      .trim()
      .split(/[\s,|–—]+|\s-\s/)
      .filter((w) => w !== '' && !isGoingOn(w))
    return words.length > 0 && words.every((w) => isChord(w) || timesOf(w) !== undefined)
      ? words.filter((w) => timesOf(w) === undefined)
      : []
  }
  if (!inside.some((m) => chordsIn(m[1]!).length > 0)) return undefined
  let text = ''
  let from = 0
  const chords: WrittenChord[] = []
  for (const m of inside) {
    const found = chordsIn(m[1]!)
    text += line.slice(from, m.index)
    from = m.index + m[0].length
    if (found.length > 0) chords.push(...found.map((symbol) => ({ at: text.length, symbol })))
    // A bracket at a place for a chord holds one that is not understood; a remark keeps its star.
    else if (/^\*/.test(m[1]!)) text += m[1]!.slice(1)
    else if (/^[A-H]/.test(m[1]!.trim()) && m[1]!.length <= 16)
      chords.push({ at: text.length, symbol: m[1]!.trim() })
    else text += m[0]
  }
  text += line.slice(from)
  // Annotations in the format's other bracket, "[*text]", are words; spaces round a chord alone are none.
  return { text, chords }
}
