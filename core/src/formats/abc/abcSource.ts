import { rewritten, rewrittenAgain, type Rewritten, type TextEdit } from '../rewritten.ts'
import { abcBlocks } from './abcBlocks.ts'

/** Something that was taken out of a source before it was parsed, or put right. */
export interface SourceRemark {
  readonly severity: 'warning' | 'note'
  /** In the source. */
  readonly offset: number
  readonly message: string
  readonly understood: string
}

/** Directives that say which voices there are; all others are about the look of a page. */
const OF_THE_MUSIC = /^%%\s*(score|staves)\b/

/** A music line: not empty, no field, no comment. */
const isMusic = (line: string) => line.trim() !== '' && !/^([A-Za-z+]:|%)/.test(line)

/**
 * Makes a tune's text ready for the parser: what is not music is taken out of it (blocks of PostScript, SVG or text,
 * directives, instructions), since the parser runs for ever on some of it; a tempo on a line of its own goes to the
 * music that it stands before; a unit length without numerator gets one.
 */
export function abcSource(text: string): { readonly source: Rewritten; readonly remarks: SourceRemark[] } {
  const lines = text.split('\n')
  const starts: number[] = []
  let at = 0
  for (const line of lines) {
    starts.push(at)
    at += line.length + 1
  }
  const remarks: SourceRemark[] = []
  const edits: TextEdit[] = []
  const blockAt = new Map(abcBlocks(lines).map((b) => [b.from, b]))
  let inBody = false
  let waiting = ''
  for (let i = 0; i < lines.length; i++) {
    const line = lines[i]!
    const from = starts[i]!
    const to = from + line.length
    const block = blockAt.get(i)
    if (block) {
      edits.push({ from, to: starts[block.to]! + lines[block.to]!.length, text: '%' })
      remarks.push({
        severity: block.closed ? 'note' : 'warning',
        offset: from,
        message: block.closed ? `a block of ${block.kind}` : `a block of ${block.kind} that never ends`,
        understood: 'left out; it is no music',
      })
      i = block.to
      continue
    }
    if (/^%%/.test(line) && !OF_THE_MUSIC.test(line)) edits.push({ from, to, text: '%' })
    else if (/^I:/.test(line)) edits.push({ from, to, text: '%' })
    else if (/^L:\s*\//.test(line)) {
      const slash = from + line.indexOf('/')
      edits.push({ from: slash, to: slash, text: '1' })
    } else if (inBody && /^Q:/.test(line)) {
      waiting = `[${line.replace(/%.*/, '').replace(/[[\]]/g, '').trim()}]`
      edits.push({ from, to, text: '%' })
    } else if (/^K:/.test(line)) inBody = true
    else if (inBody && isMusic(line)) {
      if (waiting !== '') edits.push({ from, to: from, text: waiting })
      waiting = ''
      for (const m of line.matchAll(/\[I:[^\]]*\]/g))
        edits.push({ from: from + m.index, to: from + m.index + m[0].length, text: ' ' })
    }
  }
  return { source: fieldsBeforeChords(rewritten(text, edits)), remarks }
}

/**
 * The parser takes a chord symbol that stands before an inline field for the start of a chord of notes: the two are
 * exchanged.
 */
function fieldsBeforeChords(source: Rewritten): Rewritten {
  const edits = [...source.text.matchAll(/((?:"[^"\n]*"[ \t]*)+)((?:\[[A-Za-z]:[^\]\n]*\][ \t]*)+)/g)].map(
    (m): TextEdit => ({ from: m.index, to: m.index + m[0].length, text: m[2]! + m[1]! }),
  )
  return rewrittenAgain(source, edits)
}
