import type { NoteNaming } from '../../music/pitch/noteNaming.ts'
import { timesOf } from '../times.ts'
import { isBarSign, isGoingOn, rowWords } from './chordRow.ts'
import { gridRow } from './gridRow.ts'
import type { WrittenChord, WrittenLine } from './readSong.ts'

/** A line without its number in the text. */
type Unplaced = Omit<WrittenLine, 'line'>

/** Chords moved to the left, by what was taken off before the words; none before the first letter. */
const movedBy = (chords: readonly WrittenChord[], letters: number): WrittenChord[] =>
  chords.map((c) => ({ ...c, at: Math.max(0, c.at - letters) }))

const indentOf = (text: string) => text.length - text.trimStart().length

/** A row of chords between bar lines, with the words under it or none. */
export function gridLine(
  row: string,
  words: string,
  naming: NoteNaming,
  before: readonly WrittenChord[][],
): Unplaced & { readonly bars: number } {
  const { chords, bars, repeats, times } = gridRow(row, naming, before)
  const moved = movedBy(chords, indentOf(words))
  return {
    kind: 'sung',
    text: words.trim(),
    chords: words === '' ? moved.map((c) => ({ ...c, at: 0 })) : moved,
    bars,
    ...(repeats.length > 0 ? { repeats } : {}),
    times,
  }
}

/** The chords of a row with their columns, and how often the row says that it is played. */
export function chordsOfRow(
  row: string,
  naming: NoteNaming,
): { readonly chords: readonly WrittenChord[]; readonly times: number } {
  const words = rowWords(row, naming)
  return {
    chords: words
      .filter(({ text }) => !isBarSign(text) && !isGoingOn(text) && timesOf(text) === undefined)
      .map(({ text, at }): WrittenChord => ({ at, symbol: text })),
    times: words.map((w) => timesOf(w.text)).find((n) => n !== undefined) ?? 1,
  }
}

/** A count behind words: "(x2)", "3x", "(repeat)". */
const COUNTED = /\s*[([]?\s*(?:[x×]\s?(\d{1,2})|(\d{1,2})\s?[x×]|(repeat|bis))\s*[)\]]?\s*$/i

const NAMED = /^\(?([\p{L}][\p{L}\d.&+ ]{0,20}?)\)?:\s+/u

const NUMBERED = /^(\d{1,2})[.)]\s+(?=\S)/

/**
 * A line of words with the chords over it, and the number of a verse that stands before it.
 * @param isFirst true for the first line of a part: a number before any other one is sung
 */
export function wordsLine(
  words: string,
  over: readonly WrittenChord[],
  times: number,
  singers: ReadonlySet<string>,
  isFirst: boolean,
): { readonly line: Unplaced; readonly verse?: string } {
  let text = words.trim()
  let chords = movedBy(over, indentOf(words))
  let played = times
  const counted = COUNTED.exec(text)
  // "repeat" is a word that is sung, unless it stands in brackets.
  const says = counted && (counted[3] === undefined || /[([]/.test(counted[0]))
  if (counted && says && (counted.index > 0 || chords.length > 0)) {
    played = Number(counted[1] ?? counted[2] ?? 2)
    text = text.slice(0, counted.index)
  }
  const takeOff = (letters: number) => {
    text = text.slice(letters)
    chords = movedBy(chords, letters)
  }
  const named = NAMED.exec(text)
  const singer = named && singers.has(named[1]!) ? named[1] : undefined
  if (named && singer) takeOff(named[0].length)
  const number = isFirst ? NUMBERED.exec(text) : null
  if (number) takeOff(number[0].length)
  return {
    line: {
      kind: 'sung',
      text,
      chords: chords.map((c) => ({ ...c, at: Math.min(c.at, text.length) })),
      times: played,
      ...(singer ? { singer } : {}),
    },
    ...(number ? { verse: number[1]! } : {}),
  }
}
