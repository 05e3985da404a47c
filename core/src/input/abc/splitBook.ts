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
  const starts = lines.flatMap((line, i) => (TUNE_START.test(line) && !inBlock.has(i) ? [i] : []))
  if (starts.length === 0) return text.trim() === '' ? [] : [{ text, lineOffset: 0 }]
  const shared = lines.slice(0, starts[0]).filter((l, i) => /^(%%|[A-Za-z]:)/.test(l) && !inBlock.has(i))
  return starts.map((from, i) => {
    const body = lines.slice(from, starts[i + 1] ?? lines.length)
    while (body.length > 0 && body.at(-1)!.trim() === '') body.pop()
    return {
      text: [...body.slice(0, 1), ...shared, ...body.slice(1)].join('\n') + '\n',
      lineOffset: from - shared.length,
    }
  })
}

const range = (from: number, to: number) => Array.from({ length: to - from + 1 }, (_, i) => from + i)
