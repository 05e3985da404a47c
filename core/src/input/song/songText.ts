import { plainLines } from '../sourceText.ts'

const ENTITIES: Readonly<Record<string, string>> = {
  amp: '&',
  lt: '<',
  gt: '>',
  quot: '"',
  apos: "'",
  nbsp: ' ',
  '#39': "'",
  '#34': '"',
  '#35': '#',
}

/**
 * A text as it is found on pages and in mails made plain: one kind of line end, entities as what they stand for, tabulators
 * as spaces to every eighth column, non-breaking spaces as spaces, no tags of a page, no marks of a quoted mail. Line numbers stay.
 */
export const plainSongText = (text: string): string => {
  const lines = plainLines(text)
    .replace(/&(#?\w+);/g, (whole, name: string) => ENTITIES[name] ?? whole)
    .replace(
      /<\/?(?:pre|p|div|span|b|i|em|strong|u|a|code|br|hr|html|body|font|tt|h[1-6])(?:\s[^<>]*)?\/?>/gi,
      '',
    )
    .replace(/[\u00A0\u2007\u202F]/g, ' ')
    .replace(/[\u2502\u2503\uFF5C\u00A6]/g, '|')
    .split('\n')
  const filled = lines.filter((l) => l.trim() !== '')
  // A quoted mail has its mark before every line.
  const quoted = filled.length > 2 && filled.every((l) => /^>/.test(l))
  return lines.map((l) => untabbed(quoted ? l.replace(/^(> ?)+/, '') : l).trimEnd()).join('\n')
}

function untabbed(line: string): string {
  if (!line.includes('\t')) return line
  let out = ''
  for (const c of line) out += c === '\t' ? ' '.repeat(8 - (out.length % 8)) : c
  return out
}
