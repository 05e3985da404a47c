import { withoutEntities, withoutMailMarks } from '../foundText.ts'

/** Tags of web pages; those of one letter are none, since `A<b>c` is a rhythm. */
const TAGS = /<\/?(?:br|pre|div|span|html|body|code|font|tt|blockquote)(?:\s[^<>]*)?\/?>/gi

/** A field of the head of a tune. */
const FIELD = /^[A-Za-z]:/

/** A line that is drawn to part one thing from the next. */
const RULE = /^\s*[-=_*~+]{4,}\s*$/

/** Fields with a space before their colon, or in small letters where the whole text has them so. */
function withPlainFields(lines: readonly string[]): string[] {
  const small = !lines.some((l) => /^\s*[XK]\s*:/.test(l)) && lines.some((l) => /^\s*x:\s*\d+\s*$/.test(l))
  return lines.map((line) => {
    const spaced = line.replace(/^(\s*[XTCMLQRKOPSZNHGDBFA])\s+:(?=\s*\S)/, '$1:')
    return small
      ? spaced.replace(/^(\s*)([xtmlkqrc]):/, (_, head: string, f: string) => `${head}${f.toUpperCase()}:`)
      : spaced
  })
}

/** A tune whose fields all stand on one line, parted: each on its own, the music after the key. */
function inLines(line: string): string {
  if (!/^\s*X:\s*\d+\s+[A-Z]:/.test(line)) return line
  const key = /\sK:\s*[A-G][#b]?\s*(?:m(?:in(?:or)?|aj(?:or)?|ix\w*)?|dor\w*|phr\w*|lyd\w*)?(?=\s|$)/i.exec(
    line,
  )
  const end = key ? key.index + key[0].length : line.length
  return `${line.slice(0, end).replace(/\s+(?=[A-Z]:)/g, '\n')}${end < line.length ? `\n${line.slice(end).trim()}` : ''}`
}

/** Curly quotes round chord names, in music: those of words and titles stay. */
const withStraightQuotes = (line: string): string =>
  FIELD.test(line) && !/^\s*\[/.test(line)
    ? line
    : line.replace(/[“”„‟″]/g, '"').replace(/[‘’](?=\s*[A-Ga-g])|(?<=[A-Ga-gz,])[‘’]/g, "'")

/** True for words: no field, no comment, no bar line, and more letters than notes are called by. */
const isProse = (line: string): boolean =>
  line.trim() !== '' &&
  !FIELD.test(line.trim()) &&
  !/^\s*%/.test(line) &&
  !/[|\]]/.test(line) &&
  /[h-wyH-WY]/.test(line)

/** A heading of words right over the fields of a tune that has no title is its title: "2. The Lock Gate". */
function withTitles(lines: readonly string[]): string[] {
  return lines.map((line, i) => {
    const next = lines[i + 1] ?? ''
    const opens = i === 0 || lines[i - 1]!.trim() === '' || /[|\]:]\s*$/.test(lines[i - 1]!)
    if (!opens || !isProse(line) || line.trim().length > 70 || !/^[MLKRCQ]:/.test(next)) return line
    const head: string[] = []
    for (let k = i + 1; FIELD.test(lines[k] ?? ''); k++) head.push(lines[k]!)
    if (head.some((l) => /^T:/.test(l)) || !head.some((l) => /^K:/.test(l))) return line
    return `T:${line.trim().replace(/^\d{1,3}[.)]\s*/, '')}`
  })
}

/**
 * ABC as it is found in mails and on web pages made plain ABC: entities, tags and marks of quoted mail taken off, curly quotes
 * round chord names made straight, fields put in their form. Lines keep their numbers, but for a tune that was all on one line.
 */
export function abcAsFound(text: string): string {
  const tagged = /<(?:br|pre|\/)/i.test(text) ? text.replace(TAGS, '') : text
  const lines = withoutMailMarks(withoutEntities(tagged).split('\n'))
  const plain = withPlainFields(lines).map((l) => withStraightQuotes(inLines(RULE.test(l) ? '' : l)))
  return withTitles(plain).join('\n')
}
