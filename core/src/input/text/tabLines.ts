import { finish, type Turns } from '../../turns.ts'
import { handLineIn, type HandLine } from './handLines.ts'
import { plainLines, untabbed } from '../sourceText.ts'
import { isMarkLine } from './linesAbove.ts'
import { isCountLine } from './countLine.ts'
import { marksOfSystem, type SystemMarks } from './systemMarks.ts'

/** A system of a plain-text tab: a line a string, string 1 first, with the lines over it that belong to it. */
export interface TextSystem {
  /** Line number of the first string, from 1. */
  readonly line: number
  /** What stands behind the strings' names, all beginning in the same column of the text. */
  readonly rows: readonly string[]
  /** Column in the text at which the rows begin, from 0. */
  readonly left: number
  /** Names of the strings as written, where they are. */
  readonly names: readonly (string | undefined)[]
  /** Lines right above, nearest first, with their line numbers; columns as in the rows. */
  readonly above: readonly { readonly text: string; readonly line: number }[]
  /** Lines right below that name fingers. */
  readonly hands: readonly HandLine[]
  /** A line right below that counts: `1 & 2 &`. */
  readonly counts?: string
  readonly marks: SystemMarks
}

/** How many strings a tab may have. */
const STRINGS = [6, 4, 5, 7]

/** Most lines over a system that belong to it: number, chords, rhythm. */
const ABOVE = 3

/** Most lines under a system that belong to it: one a hand. */
const BELOW = 2

const NAME = /^(\s*)([A-Ga-g][#b♯♭]?\d?)?(\s{0,2})([|:[‖]|(?=-))/

/** Signs of word processors made plain: dashes, quotes, non-breaking spaces, tabulators, full-width bars. */
export function plainTabText(text: string): string {
  const lines = plainLines(text)
  // Most tabs are plain already, and long ones take their time.
  const plain = /[^ -~\n\t]/.test(lines) ? withPlainSigns(lines) : lines
  return plain.includes('\t') ? plain.split('\n').map(untabbed).join('\n') : plain
}

function withPlainSigns(text: string): string {
  return text
    .replace(/[\u2010-\u2015\u2212\u2500\u2501]/g, '-')
    .replace(/[\u2502\u2503\uFF5C\u00A6]/g, '|')
    .replace(/[\u00A0\u2007\u202F]/g, ' ')
    .replace(/[\u2018\u2019]/g, "'")
    .replace(/[\u201C\u201D]/g, '"')
    .replace(/[\u2039\u27E8]/g, '<')
    .replace(/[\u203A\u27E9]/g, '>')
    .replace(/\u00D7/g, 'x')
}

/** True for a line that is mostly dashes, frets and bars. */
export function isString(line: string): boolean {
  // A palm that damps for long is mostly dashes too.
  if (isMarkLine(line)) return false
  const body = line.replace(NAME, '')
  const dashes = (body.match(/-/g) ?? []).length
  const own = (body.match(/[-|0-9hpbrsxX/\\~()<>{}+=^:*. ]/g) ?? []).length
  // A string that has its name and a bar may be full of signs.
  const least = /^\s*[A-Ga-g][#b♯♭]?\d?\s{0,2}[|:[‖]/.test(line) ? 0.1 : 0.25
  return dashes >= 4 && own >= 0.85 * body.length && dashes >= least * body.trim().length
}

/** True for a line that was meant to be a string and is not taken for one: frets and dashes among much else. */
const isBrokenString = (line: string): boolean =>
  /\d/.test(line) && (line.match(/-/g) ?? []).length >= 4 && /-\d|\d-/.test(line)

/** Lines that look like a string of a tab and belong to no system, by number from 1. */
export function brokenStrings(text: string, systems: readonly TextSystem[]): number[] {
  const taken = new Set(systems.flatMap((s) => s.rows.map((_, i) => s.line + i)))
  return plainTabText(text)
    .split('\n')
    .flatMap((line, i) => (!taken.has(i + 1) && isBrokenString(line) ? [i + 1] : []))
}

/** Finds the systems of a text: as many strings as there are under one another. */
export const textSystems = (text: string): TextSystem[] => finish(findingSystems(text))

/** The same in turns. */
export function* findingSystems(text: string): Turns<TextSystem[]> {
  const lines = plainTabText(text).split('\n')
  yield
  const systems: TextSystem[] = []
  let last = 0
  for (let i = 0, found = 0; i < lines.length;) {
    if (systems.length > found + 24) {
      found = systems.length
      yield
    }
    if (!isString(lines[i]!)) {
      i++
      continue
    }
    let end = i
    while (end < lines.length && isString(lines[end]!)) end++
    const count = STRINGS.find((n) => (end - i) % n === 0) ?? end - i
    for (let at = i; at + count <= end; at += count) {
      systems.push(systemOf(lines, at, count, at === i ? last : at))
      last = at + count
    }
    i = end
  }
  return systems
}

/** A string without the words behind its last bar that say how often it is played: "x2", "(play 3 times)". */
const withoutCount = (row: string): string =>
  row.replace(/(\|)\s*[([]?\s*(?:[x×]\s*\d{1,2}|\d{1,2}\s*[x×]|(?:play|repeat)\b[^|]*)[)\]]?\s*$/i, '$1')

function systemOf(lines: readonly string[], at: number, count: number, from: number): TextSystem {
  const own = lines.slice(at, at + count)
  const heads = own.map((l) => NAME.exec(l))
  const lengths = heads.map((h) => (h ? h[1]!.length + (h[2]?.length ?? 0) + h[3]!.length : 0))
  const left = Math.max(0, ...lengths)
  // A line that begins further to the left than the others stands askew: nothing of it is cut off.
  const rows = own
    .map((l, i) => l.slice(l.slice(lengths[i], left).trim() === '' ? left : lengths[i]))
    .map(withoutCount)
  const above: { text: string; line: number }[] = []
  for (let i = at - 1; i >= Math.max(from, at - ABOVE); i--) {
    if (lines[i]!.trim() === '' || handLineIn(lines[i]!, left, i + 1)) break
    // What begins over the names of the strings stands a little further right, and is not cut off.
    const begins = lines[i]!.slice(0, left).trim() === '' ? left : 0
    above.push({ text: lines[i]!.slice(begins), line: i + 1 })
  }
  const hands: HandLine[] = []
  for (let i = at + count; i < Math.min(lines.length, at + count + BELOW); i++) {
    const hand = handLineIn(lines[i]!, left, i + 1)
    if (!hand) break
    hands.push(hand)
  }
  const below = lines.slice(at + count, at + count + BELOW + 1).find(isCountLine)
  return {
    line: at + 1,
    rows,
    left,
    names: heads.map((h) => h?.[2]),
    above,
    hands,
    ...(below === undefined ? {} : { counts: below.slice(left) }),
    marks: marksOfSystem(lines, at, count, from),
  }
}
