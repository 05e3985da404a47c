import { readChordIn, type SymbolReading } from '../../music/harmony/chordSymbol.ts'
import type { NoteNaming } from '../../music/pitch/noteNaming.ts'
import { timesOf } from '../times.ts'

/** A word of a line of chords with its column, from 0. */
export interface RowWord {
  readonly text: string
  readonly at: number
}

/** Words of a line of chords that are no chord: bars, strokes that go on, counts of repetitions. */
const BAR = /^(?:\|+:?|:?\|+|\|\|?:|:\|\|?)$/
const GOES_ON = /^(?:[./]+|[-–—]+|%{1,2}|\.\.\.|…|~+)$/

/** A chord word without the brackets, commas and stars that are written round it. */
export const bareChord = (word: string): string =>
  word.replace(/^[([{]+(?=[A-HNa-z])/, '').replace(/(?:(?<!\([^()]*)[)\]}]|[*,;:!])+$/, '')

/** What a word is as a chord, in the naming of its text. */
export function chordOf(word: string, naming: NoteNaming): SymbolReading {
  const bare = bareChord(word)
  // Letters are understood beside syllables; in the German naming B is another note.
  if (naming === 'syllables') return readChordIn(SYLLABLE.test(bare) ? 'syllables' : 'letters', bare)
  // Small letters are minor chords: "cis" is C sharp minor.
  const small = naming === 'german' ? /^([a-h](?:is|es|s)?)(\d*)$/.exec(bare) : null
  if (small)
    return readChordIn('german', `${small[1]!.slice(0, 1).toUpperCase()}${small[1]!.slice(1)}m${small[2]!}`)
  return readChordIn(naming, bare)
}

/** A syllable as the name of a chord is written: with a capital, so that "la la la" stays words. */
const SYLLABLE = /^(?:Do|R[eé]|Mi|Fa|Sol|La|Si)/

const isChord = (word: string, naming: NoteNaming) => chordOf(word, naming).kind !== 'unknown'

/** The words of a line with their columns; chords joined by dashes, and those that touch a bar line, are taken apart. */
export function rowWords(line: string, naming: NoteNaming): RowWord[] {
  const words: RowWord[] = []
  const spaced = line.replace(/N\. C\./g, 'N.C. ')
  for (const m of spaced.matchAll(/\|+:?|:?\|+(?!:)|[^\s|]+/g)) {
    const text = m[0]
    const parts = text.split(/([-–—>]+)/)
    const joined =
      parts.length > 2 &&
      !isChord(text, naming) &&
      parts.every((p, i) => i % 2 === 1 || p === '' || isChord(p, naming))
    if (!joined) {
      words.push({ text, at: m.index })
      continue
    }
    let at = m.index
    parts.forEach((part, i) => {
      if (i % 2 === 0 && part !== '') words.push({ text: part, at })
      at += part.length
    })
  }
  return words
}

/** What a line is made of, counted. */
interface RowCount {
  readonly chords: number
  readonly other: number
  readonly bars: number
}

const NO_ROW = { chords: 0, other: 1, bars: 0 } as const

function countOf(line: string, naming: NoteNaming): RowCount {
  if (line.trim() === '') return NO_ROW
  let [chords, other, bars, large] = [0, 0, 0, 0]
  for (const { text } of rowWords(line, naming)) {
    if (BAR.test(text)) bars++
    else if (GOES_ON.test(text) || timesOf(text) !== undefined) continue
    else if (isChord(text, naming)) {
      chords++
      if (/[A-H]/.test(text)) large++
    } else other++
  }
  // Words of small letters alone are words: "es", "das".
  return large === 0 && naming === 'german'
    ? { chords: 0, other: other + chords, bars }
    : { chords, other, bars }
}

/** A word with a capital note name at its head, such as a mistyped chord: "Gmaj7add", "C#mi7x". */
const NEAR_CHORD = /^[([]?[A-H](?![a-z]{3,}$)[#b♯♭]?[A-Za-z0-9#+°ø()/-]{0,12}$/

/** True for a line of chords: nothing but chords and their signs, or most of it, with the rest much like chords. */
export function isChordRow(line: string, naming: NoteNaming): boolean {
  const { chords, other } = countOf(line, naming)
  if (chords === 0) return false
  if (other === 0) return true
  const odd = rowWords(line, naming).filter(
    ({ text }) =>
      !BAR.test(text) && !GOES_ON.test(text) && timesOf(text) === undefined && !isChord(text, naming),
  )
  return chords >= 2 && chords >= 2 * other && odd.every(({ text }) => NEAR_CHORD.test(text))
}

/** True for a line of chords between bar lines. */
export const isGridRow = (line: string, naming: NoteNaming): boolean => {
  const { chords, other, bars } = countOf(line, naming)
  if (bars === 0 || other > 0) return false
  return chords > 0 || /[%./]/.test(line)
}

export const isBarSign = (word: string): boolean => BAR.test(word)
export const isGoingOn = (word: string): boolean => GOES_ON.test(word)

/**
 * The naming in which a text writes its chords: letters, unless H stands where only a chord can (German), or most rows are
 * of syllables (Do, Re, Mi).
 */
export function namingOfChords(lines: readonly string[]): NoteNaming {
  const rows = (naming: NoteNaming) => lines.filter((l) => isChordRow(l, naming))
  const letters = rows('letters').length
  const sung = rows('syllables')
  const names = new Set(sung.flatMap((l) => rowWords(l, 'syllables').map((w) => w.text)))
  if (sung.length > letters && names.size > 1) return 'syllables'
  const inBrackets = lines.flatMap((l) => [...l.matchAll(/\[(H[^\]\s]{0,6})\]/g)]).length
  const german = rows('german')
  const withH = german.filter((l) => rowWords(l, 'german').some((w) => /^H(?![a-z]{3})/.test(w.text))).length
  return withH + inBrackets > 0 && german.length >= letters ? 'german' : 'letters'
}
