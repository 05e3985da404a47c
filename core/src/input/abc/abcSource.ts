import { message, type Message } from '../../messages/message.ts'
import { lineStarts } from '../lineStarts.ts'
import { rewritten, rewrittenAgain, type Rewritten, type TextEdit } from '../rewritten.ts'
import { abcBlocks } from './abcBlocks.ts'

/** Something that was taken out of a source before it was parsed, or put right. */
export interface SourceRemark {
  readonly severity: 'warning' | 'note'
  /** In the source. */
  readonly offset: number
  readonly says: Message<'reading'>
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
  const starts = lineStarts(lines)
  const remarks: SourceRemark[] = []
  const edits: TextEdit[] = []
  const blocks = abcBlocks(lines)
  const blockAt = new Map(blocks.map((b) => [b.from, b]))
  const inBlock = new Set(
    blocks.flatMap(({ from, to }) => Array.from({ length: to - from + 1 }, (_, k) => from + k)),
  )
  const prose = proseAfter(lines, inBlock)
  const late = lateKey(lines, inBlock)
  if (late) {
    const at = starts[late.music]!
    edits.push({ from: at, to: at, text: `${plainKey(lines[late.key]!.trim())}\n` })
    edits.push({ from: starts[late.key]!, to: starts[late.key]! + lines[late.key]!.length, text: '%' })
    remarks.push({ severity: 'warning', offset: starts[late.key]!, says: message('reading.lateKey') })
  }
  let inBody = late !== undefined
  let waiting = ''
  const inVoices = /^V:|\[V:/m.test(text)
  for (let i = 0; i < lines.length; i++) {
    if (i === late?.key) continue
    const whole = lines[i]!
    const to = starts[i]! + whole.length
    // A field is meant as one where it does not begin its line, too.
    const blank = /^[ \t]+(?=[A-Za-z]:)/.exec(whole)?.[0].length ?? 0
    const from = starts[i]! + blank
    const line = whole.slice(blank)
    if (blank > 0 && !blockAt.has(i) && !prose.has(i)) edits.push({ from: starts[i]!, to: from, text: '' })
    const block = blockAt.get(i)
    if (block) {
      edits.push({ from, to: starts[block.to]! + lines[block.to]!.length, text: '%' })
      remarks.push({
        severity: block.closed ? 'note' : 'warning',
        offset: from,
        says: message(block.closed ? 'reading.block' : 'reading.openBlock', { kind: block.kind }),
      })
      i = block.to
      continue
    }
    if (prose.has(i)) {
      edits.push({ from, to, text: '%' })
      if (!prose.has(i - 1) && line.trim() !== '')
        remarks.push({
          severity: 'note',
          offset: from,
          says: message('reading.prose'),
        })
    } else if (line.trim() === '' && i < lines.length - 1) edits.push({ from, to, text: '%' })
    // Words are laid under the notes by `lyricLines.ts`.
    else if (/^w:/.test(line)) edits.push({ from, to, text: '%' })
    else if (/^%%/.test(line) && !OF_THE_MUSIC.test(line)) edits.push({ from, to, text: '%' })
    else if (/^I:/.test(line)) edits.push({ from, to, text: '%' })
    else if (/^L:\s*\//.test(line)) {
      const slash = from + line.indexOf('/')
      edits.push({ from: slash, to: slash, text: '1' })
    } else if (!inBody && /^Q:/.test(line)) {
      if (wholeTempo(line) !== line) edits.push({ from, to, text: wholeTempo(line) })
    } else if (inBody && inVoices && /^M:/.test(line)) {
      // The parser would give it to another voice.
      waiting += `[${line.replace(/%.*/, '').replace(/[[\]]/g, '').trim()}]`
      edits.push({ from, to, text: '%' })
    } else if (inBody && /^Q:/.test(line)) {
      waiting += `[${wholeTempo(line).replace(/%.*/, '').replace(/[[\]]/g, '').trim()}]`
      edits.push({ from, to, text: '%' })
    } else if (/^K:/.test(line)) {
      inBody = true
      const key = plainKey(line)
      if (key !== line) edits.push({ from, to, text: key })
    } else if (inBody && isMusic(line)) {
      // A field at the head of a line would be lost between two voices: a space stands before it.
      const head = inVoices && /^\s*\[[KM]:/.test(waiting + line) ? 'y' : ''
      if (waiting + head !== '') edits.push({ from, to: from, text: head + waiting })
      waiting = ''
      if (/^\s*\\(?!\s*$)/.test(line)) {
        const at = from + line.indexOf('\\')
        edits.push({ from: at, to: at + 1, text: ' ' })
        remarks.push({
          severity: 'warning',
          offset: at,
          says: message('reading.backslash'),
        })
      }
      for (const m of line.matchAll(/\[I:[^\]]*\]/g))
        edits.push({ from: from + m.index, to: from + m.index + m[0].length, text: ' ' })
      for (const m of line.matchAll(/\[Q:[^\]]*\]/g))
        if (wholeTempo(m[0]) !== m[0])
          edits.push({ from: from + m.index, to: from + m.index + m[0].length, text: wholeTempo(m[0]) })
    }
  }
  return { source: fieldsBeforeChords(rewritten(text, edits)), remarks }
}

/** A key that stands behind the first music, where none stands before it: the lines of both. */
function lateKey(
  lines: readonly string[],
  inBlock: ReadonlySet<number>,
): { readonly music: number; readonly key: number } | undefined {
  const key = lines.findIndex((l, i) => /^[ \t]*K:\s*\S/.test(l) && !inBlock.has(i))
  const music = lines.findIndex((l, i) => !inBlock.has(i) && isMusic(l.trim()) && looksLikeMusic(l))
  return music >= 0 && key > music ? { music, key } : undefined
}

/** A line that can only be music: bar lines, and little else than what music is written with. */
function looksLikeMusic(line: string): boolean {
  const plain = line.replace(/"[^"]*"|![^!]*!|\[[A-Za-z]:[^\]]*\]/g, '')
  const own = plain.match(/[A-Ga-gzxZ0-9|:\][()/<>\-'",^_=~.{}\s]/g)?.length ?? 0
  return /[|]/.test(line) && own >= 0.8 * plain.length
}

/**
 * Lines that stand behind an empty line and are no part of the tune: a paragraph in which nothing is a field or music.
 * An empty line alone does not end a tune: many are sent with empty lines between all others.
 */
function proseAfter(lines: readonly string[], inBlock: ReadonlySet<number>): Set<number> {
  const prose = new Set<number>()
  const first = lines.findIndex((l, i) => l.trim() === '' && !inBlock.has(i))
  if (first < 0) return prose
  for (let from = first; from < lines.length;) {
    if (lines[from]!.trim() === '' || inBlock.has(from)) {
      from++
      continue
    }
    let to = from
    while (to + 1 < lines.length && lines[to + 1]!.trim() !== '') to++
    const own = Array.from({ length: to - from + 1 }, (_, k) => from + k).filter((i) => !inBlock.has(i))
    const isTune = own.some((i) => /^([A-Za-z]:|%)/.test(lines[i]!) || looksLikeMusic(lines[i]!))
    if (!isTune) for (const i of own) prose.add(i)
    from = to + 1
  }
  return prose
}

/**
 * Keys that the parser reads otherwise than they are meant: the bagpipe's (F and C sharp, G natural, whether the signature
 * is shown or not), and one of which only the accidentals that stand there hold (ABC 2.1, section 3.1.14).
 */
const plainKey = (line: string) =>
  line.replace(/^(K:\s*)H[Pp]\b/, '$1Amix').replace(/^(K:\s*)[A-G][#b]?\s*\w*\s*\bexp\b/, '$1C')

/** The parser reads whole numbers of beats alone: a tempo of 85.5 is said in shorter beats. */
const wholeTempo = (line: string) =>
  line.replace(
    /(\d+)\/(\d+)(\s*=\s*)(\d+)\.(\d{1,3})/,
    (_, num: string, den: string, is: string, whole: string, part: string) =>
      `${num}/${Number(den) * 10 ** part.length}${is}${whole}${part}`,
  )

/**
 * The parser takes a chord symbol that stands before an inline field for the start of a chord of notes: the two are
 * exchanged.
 */
function fieldsBeforeChords(source: Rewritten): Rewritten {
  // All symbols are found, so that the end of one is not taken for the beginning of another.
  const found = source.text.matchAll(/((?:"[^"\n]*"[ \t]*)+)((?:\[[A-Za-z]:[^\]\n]*\][ \t]*)*)/g)
  const edits = [...found].flatMap((m): TextEdit[] => {
    if (m[2] === '') return []
    const fields = m.index + m[1]!.length
    return [
      { from: m.index, to: m.index, text: m[2]! },
      { from: fields, to: fields + m[2]!.length, text: '' },
    ]
  })
  return rewrittenAgain(source, edits)
}
