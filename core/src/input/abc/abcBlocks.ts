/** Lines of a text that are none of its music: `%%begin…` blocks, from their first line to their last. */
export interface AbcBlock {
  /** What begins after `%%begin`, such as `ps` or `text`. */
  readonly kind: string
  /** Indexes of its lines, both inclusive. */
  readonly from: number
  readonly to: number
  /** False where the text never ends it. */
  readonly closed: boolean
}

const BEGIN = /^%%\s*begin(\w+)/
/** A block that is never closed ends before what is plainly a field of a tune. */
const FIELD = /^[A-Za-z]:/

/** The blocks of a text, in order. @param lines the lines of the text */
export function abcBlocks(lines: readonly string[]): AbcBlock[] {
  const blocks: AbcBlock[] = []
  for (let from = 0; from < lines.length; from++) {
    const kind = BEGIN.exec(lines[from]!)?.[1]
    if (kind === undefined) continue
    const end = new RegExp(`^%%\\s*end${kind}\\b`)
    let to = from + 1
    while (to < lines.length && !end.test(lines[to]!)) to++
    const closed = to < lines.length
    if (!closed) {
      to = from
      while (to + 1 < lines.length && !FIELD.test(lines[to + 1]!) && lines[to + 1]!.trim() !== '') to++
    }
    blocks.push({ kind, from, to, closed })
    from = to
  }
  return blocks
}
