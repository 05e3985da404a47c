import { abcBlocks } from './abcBlocks.ts'

/** One tune's text inside a book. `lineOffset` is added to its line numbers to get those of the book. */
export interface BookTune {
  readonly text: string
  readonly lineOffset: number
}

const TUNE_START = /^X:/

/**
 * Splits a text into tunes at their `X:` lines. Fields and directives before the first one hold for every tune.
 * A text without `X:` is one tune.
 */
export function splitBook(text: string): BookTune[] {
  const lines = text.split('\n')
  const inBlock = new Set(abcBlocks(lines).flatMap(({ from, to }) => range(from, to)))
  const numbered = lines.flatMap((line, i) => (TUNE_START.test(line) && !inBlock.has(i) ? [i] : []))
  const starts = withUnnumbered(lines, numbered, inBlock)
  if (starts.length === 0) return text.trim() === '' ? [] : [{ text, lineOffset: 0 }]
  const firstTune = starts[0]!
  const shared = lines.slice(0, firstTune).filter((l, i) => /^(%%|[A-Za-z]:)/.test(l) && !inBlock.has(i))
  return starts.map((from, i) => {
    const body = lines.slice(from, starts[i + 1] ?? lines.length)
    while (body.length > 0 && body.at(-1)!.trim() === '') body.pop()
    return {
      text: [...body.slice(0, 1), ...shared, ...body.slice(1)].join('\n') + '\n',
      lineOffset: from - shared.length,
    }
  })
}

/** A field, and a line of music. */
const isField = (line: string) => /^[ \t]*[A-Za-z]:/.test(line)
const isMusic = (line: string) =>
  line.trim() !== '' && !isField(line) && !/^\s*%/.test(line) && /[|]/.test(line)

/**
 * Starts of tunes, those too that have lost their number: a title after music, with a key before the next music. In a book
 * of numbered tunes an empty line must stand before it; a title alone inside a tune is that of a part.
 */
function withUnnumbered(
  lines: readonly string[],
  numbered: readonly number[],
  inBlock: ReadonlySet<number>,
): number[] {
  const starts = new Set(numbered)
  let music = false
  for (const [i, line] of lines.entries()) {
    if (inBlock.has(i)) continue
    if (starts.has(i)) music = false
    else if (isMusic(line)) music = true
    else if (music && /^[ \t]*T:/.test(line)) {
      const apart = numbered.length === 0 || (lines[i - 1] ?? '').trim() === ''
      let k = i + 1
      while (k < lines.length && !isMusic(lines[k]!) && !starts.has(k)) k++
      const head = lines.slice(i, k)
      const has = (field: RegExp) => head.some((l) => field.test(l))
      const keyed = has(/^[ \t]*K:/)
      // A title with metre and key is the head of a tune wherever it stands.
      const whole = keyed && has(/^[ \t]*M:/)
      if (!(whole || (apart && keyed)) || k >= lines.length) continue
      starts.add(i)
      music = false
    }
  }
  // Without any number what stands before the first start is the first tune.
  if (numbered.length === 0 && starts.size > 0) starts.add(0)
  return [...starts].sort((a, b) => a - b)
}

const range = (from: number, to: number) => Array.from({ length: to - from + 1 }, (_, i) => from + i)
