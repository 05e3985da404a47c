/** What entities of web pages stand for, as far as they turn up in tunes. */
const ENTITIES: Readonly<Record<string, string>> = {
  amp: '&',
  lt: '<',
  gt: '>',
  quot: '"',
  apos: "'",
  nbsp: ' ',
  '#34': '"',
  '#35': '#',
  '#39': "'",
  '#8217': '’',
  rsquo: '’',
  lsquo: '‘',
  rdquo: '”',
  ldquo: '“',
}

/** @example withoutEntities('Salt &amp; Tar') // 'Salt & Tar' */
export const withoutEntities = (text: string): string =>
  text.replace(/&(#?\w+);/g, (whole, name: string) => ENTITIES[name] ?? whole)

/** A mail that quotes another has marks before most of its lines: those lines without it. Others as they stand. */
export function withoutMailMarks(lines: readonly string[]): readonly string[] {
  const filled = lines.filter((l) => l.trim() !== '')
  const marked = filled.filter((l) => /^\s*>/.test(l)).length
  const quoted = filled.length > 2 && marked > filled.length / 2
  return quoted ? lines.map((l) => l.replace(/^\s*(?:> ?)+/, '')) : lines
}
