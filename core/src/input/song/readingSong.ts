import { bracketedLine } from './bracketedLine.ts'
import { isChordRow, namingOfChords } from './chordRow.ts'
import { directiveIn } from './directive.ts'
import { isTabLine } from '../../output/text/tabSigns.ts'
import type { ReadSong } from './readSong.ts'
import { SongReader } from './songReader.ts'
import { plainSongText } from './songText.ts'

/** True for a text with chords over or in words, or between bar lines, or with directives of a song. */
export function looksLikeSong(text: string): boolean {
  const lines = plainSongText(text).split('\n')
  const naming = namingOfChords(lines)
  return (
    lines.some((l) => isChordRow(l, naming) && !isTabLine(l)) ||
    lines.some((l) => bracketedLine(l, naming) !== undefined) ||
    lines.some((l) => /^(?:title|start_of_|comment|chorus$)/.test(directiveIn(l)?.name ?? ''))
  )
}

/** How many rows of chords stand over words. */
export function chordsOverWords(text: string): number {
  const lines = plainSongText(text).split('\n')
  const naming = namingOfChords(lines)
  return lines.filter((line, i) => {
    const under = lines[i + 1] ?? ''
    const isRow = (l: string) => isChordRow(l, naming) || isTabLine(l)
    // A string on which nothing is played looks like a chord with bars.
    const isNamed = isChordRow(line, naming) && !isTabLine(line)
    return isNamed && /[A-Za-zÀ-ÿ]{2}/.test(under) && !isRow(under)
  }).length
}

/** Songs of a text: a directive parts them. Each with the number of lines before it. */
export function songsIn(text: string): { readonly text: string; readonly lineOffset: number }[] {
  const lines = plainSongText(text).split('\n')
  const starts = [0, ...lines.flatMap((l, i) => (directiveIn(l)?.name === 'new_song' && i > 0 ? [i] : []))]
  return starts
    .map((from, i) => ({ text: lines.slice(from, starts[i + 1]).join('\n'), lineOffset: from }))
    .filter((s) => s.text.trim() !== '')
}

/**
 * Reads a song as teachers have it: chords over words, chords in brackets inside the words, ChordPro, grids of chords
 * between bar lines, mixed. What is not understood is kept as a remark, and said.
 */
export function readSong(text: string, lineOffset = 0): ReadSong {
  const lines = singleSpaced(plainSongText(text).split('\n'))
  const texts = lines.map((l) => l.text)
  return new SongReader(
    texts,
    namingOfChords(texts),
    lines.map((l) => l.line + lineOffset),
  ).read()
}

/** Lines with their numbers, from 1; where an empty line stands between all others, each of them is left out once. */
function singleSpaced(lines: readonly string[]): { readonly text: string; readonly line: number }[] {
  const numbered = lines.map((text, i) => ({ text, line: i + 1 }))
  const filled = lines.flatMap((l, i) => (l.trim() === '' ? [] : [i]))
  const apart = filled.every((at, i) => i === 0 || at - filled[i - 1]! > 1)
  if (!apart || filled.length < 4) return numbered
  return numbered.filter(({ text }, i) => text.trim() !== '' || lines[i - 1]?.trim() === '')
}
