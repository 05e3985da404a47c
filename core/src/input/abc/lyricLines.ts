import { groupBy } from 'es-toolkit'
import type { Id } from '../../document/ids.ts'
import { LIMITS } from '../../document/limits.ts'

/** What a `w:` line does at one note after the other. */
type Word =
  | { readonly kind: 'syllable'; readonly text: string; readonly goesOn: boolean }
  /** A note without a syllable of its own: `*`, or one held with `_` or a further `-`. */
  | { readonly kind: 'skip' }
  /** To the first note of the next measure. */
  | { readonly kind: 'bar' }

/** A note that may be sung, with the line of the text on which it stands and its measure. */
export interface SungNote {
  readonly id: Id
  readonly line: number
  readonly measure: Id
}

/** Words that had no note left, with the line on which they stand (from 0). */
export interface LeftWords {
  readonly line: number
  readonly words: readonly string[]
}

/** The syllables of one `w:` line (ABC standard 2.1, section 5.1). */
export function wordsOf(text: string): Word[] {
  const words: Word[] = []
  let word = ''
  const end = (goesOn: boolean) => {
    if (word === '') return false
    words.push({ kind: 'syllable', text: word, goesOn })
    word = ''
    return true
  }
  for (let i = 0; i < text.length; i++) {
    const c = text[i]!
    if (c === '\\' && /[-_*|~%]/.test(text[i + 1] ?? '')) word += text[++i]!
    else if (/\s/.test(c)) end(false)
    else if (c === '~') word += ' '
    else if (c === '-') {
      if (end(true)) continue
      const last = words.findLastIndex((w) => w.kind === 'syllable')
      const before = words[last]
      if (before?.kind === 'syllable' && !before.goesOn) words[last] = { ...before, goesOn: true }
      else words.push({ kind: 'skip' })
    } else if (c === '_' || c === '*') {
      end(false)
      words.push({ kind: 'skip' })
    } else if (c === '|') {
      end(false)
      words.push({ kind: 'bar' })
    } else word += c
  }
  end(false)
  return words
}

/**
 * The syllables of every note, verse by verse, from the `w:` lines under its line of music. Rests have none.
 * @param lines the lines of the tune's text
 * @param notes those of all voices, in the order of the text
 */
export function sungWords(
  lines: readonly string[],
  notes: readonly SungNote[],
): { readonly verses: ReadonlyMap<Id, readonly string[]>; readonly left: readonly LeftWords[] } {
  const onLine = groupBy(notes, (n) => n.line)
  const verses = new Map<Id, string[]>()
  const left: LeftWords[] = []
  let music: SungNote[] = []
  let verse = 0
  let continued = false
  // Some write the words over their line: where the first words stand before the first music, all do.
  const [firstWords, firstMusic] = [
    lines.findIndex((l) => /^w:/.test(l)),
    lines.findIndex((l, i) => onLine[i] || (i > keyLine(lines) && isMusic(l))),
  ]
  const above = firstWords >= 0 && firstWords < firstMusic
  const waiting: { readonly at: number; readonly text: string }[] = []
  const put = (at: number, text: string) => {
    const rest = lay(wordsOf(text.replace(/([^\\])%.*$/, '$1')), music, verse, verses)
    if (rest.length > 0) left.push({ line: at, words: rest })
    verse++
  }
  for (let i = 0; i < lines.length; i++) {
    const line = lines[i]!
    if (/^w:/.test(line)) {
      let text = line.slice(2)
      const at = i
      // A backslash at the end joins the words of the next line.
      while (/\\\s*$/.test(text) && /^w:/.test(lines[i + 1] ?? ''))
        text = text.replace(/\\\s*$/, ' ') + lines[++i]!.slice(2)
      if (above) waiting.push({ at, text })
      else put(at, text)
    } else if (onLine[i] || isMusic(line)) {
      music = continued ? [...music, ...(onLine[i] ?? [])] : (onLine[i] ?? [])
      verse = 0
      continued = /\\\s*$/.test(line)
      for (const words of waiting.splice(0)) put(words.at, words.text)
    }
  }
  for (const words of waiting) put(words.at, words.text)
  return { verses, left }
}

/** The line of the key, after which the music begins; -1 where there is none. */
const keyLine = (lines: readonly string[]) => lines.findIndex((l) => /^K:/.test(l))

/** A line of rests has words of its own too, and takes those of no other line. */
const isMusic = (line: string) => line.trim() !== '' && !/^([A-Za-z+]:|%)/.test(line)

/** Lays words under notes. Returns the syllables for which there was no note. */
function lay(
  words: readonly Word[],
  notes: readonly SungNote[],
  verse: number,
  verses: Map<Id, string[]>,
): string[] {
  let at = 0
  const left: string[] = []
  for (const w of words) {
    if (w.kind === 'skip') at++
    else if (w.kind === 'bar') {
      const measure = notes[at - 1]?.measure
      while (measure !== undefined && notes[at]?.measure === measure) at++
    } else {
      const note = notes[at++]
      const text = w.text.trim() + (w.goesOn ? '-' : '')
      if (!note) left.push(text)
      else if (verse < LIMITS.verses) {
        const own = verses.get(note.id) ?? []
        while (own.length < verse) own.push('')
        own.push(text)
        verses.set(note.id, own)
      }
    }
  }
  return left
}
