import book, { type AbcTune } from 'abcjs/src/api/abc_tunebook.js'

/** Lines that the parser may break on before a tune is given up. */
const MOST_BAD_LINES = 20

/** What the parser made of a text, and the lines that it broke on: they were taken out. */
export interface AbcParse {
  readonly raw: AbcTune | undefined
  /** Indexes of lines in the text that was parsed. */
  readonly badLines: readonly number[]
}

/**
 * Parses a tune. The parser throws on some lines: the first line up to which it cannot read is taken out, until the rest
 * can be read.
 */
export function parseAbc(text: string): AbcParse {
  const lines = text.split('\n')
  const badLines: number[] = []
  for (let tries = 0; tries <= MOST_BAD_LINES; tries++) {
    const raw = parsed(lines, lines.length)
    if (raw) return { raw, badLines }
    let [reads, breaks] = [0, lines.length]
    while (breaks - reads > 1) {
      const middle = (reads + breaks) >> 1
      if (parsed(lines, middle)) reads = middle
      else breaks = middle
    }
    if (breaks === 0 || lines[breaks - 1]!.startsWith('%')) break
    lines[breaks - 1] = `%${lines[breaks - 1]!.slice(1)}`
    badLines.push(breaks - 1)
  }
  return { raw: undefined, badLines }
}

function parsed(lines: readonly string[], count: number): AbcTune | undefined {
  try {
    return book.parseOnly(lines.slice(0, count).join('\n'))[0]
  } catch {
    return undefined
  }
}
