import type { NoteNaming } from '../../music/pitch/noteNaming.ts'
import { isTabLine } from '../../output/text/tabSigns.ts'
import { partHeadIn } from '../partHeads.ts'
import { timesOf } from '../times.ts'
import { bracketedLine } from './bracketedLine.ts'
import { isChordRow, isGridRow } from './chordRow.ts'
import { directiveIn } from './directive.ts'

const ALONE_AGAIN = /^[([]\s*(?:repeat|bis)\s*[)\]]$/i

/** How often what stands before it is played, where a line says nothing else: "x2", "(repeat)". */
export const timesAlone = (line: string): number | undefined => {
  const text = line.trim()
  return timesOf(text) ?? (ALONE_AGAIN.test(text) ? 2 : undefined)
}

/** True for words that can be sung under a row of chords. */
export const isWords = (line: string, naming: NoteNaming): boolean =>
  line.trim() !== '' &&
  !directiveIn(line) &&
  !isChordRow(line, naming) &&
  !isGridRow(line, naming) &&
  !isTabLine(line) &&
  !bracketedLine(line, naming) &&
  !partHeadIn(line) &&
  timesAlone(line) === undefined

/** True where words or chords stand between the heading at a line and the next one. */
export function hasLinesBelow(lines: readonly string[], heading: number, naming: NoteNaming): boolean {
  for (const line of lines.slice(heading + 1)) {
    if (line.trim() === '') continue
    const directive = directiveIn(line)
    if (!directive)
      return bracketedLine(line, naming) !== undefined || isChordRow(line, naming) || !partHeadIn(line)
    if (/^start_of_(?:grid|tab)$/.test(directive.name)) return true
    if (/^(?:start_of_|end_of_|chorus)/.test(directive.name)) return false
  }
  return false
}
