/** A directive of ChordPro: `{title: …}`, `{soc}`. */
export interface Directive {
  readonly name: string
  readonly value: string
}

/** Short names of the format's published description, from memory. */
const SHORT: Readonly<Record<string, string>> = {
  t: 'title',
  st: 'subtitle',
  c: 'comment',
  ci: 'comment',
  cb: 'comment',
  comment_italic: 'comment',
  comment_box: 'comment',
  highlight: 'comment',
  soc: 'start_of_chorus',
  eoc: 'end_of_chorus',
  sov: 'start_of_verse',
  eov: 'end_of_verse',
  sob: 'start_of_bridge',
  eob: 'end_of_bridge',
  sot: 'start_of_tab',
  eot: 'end_of_tab',
  sog: 'start_of_grid',
  eog: 'end_of_grid',
  ns: 'new_song',
}

/**
 * Reads a line that is a directive and nothing else; undefined for any other.
 * @example directiveIn('{soc: Chorus 2}') // { name: 'start_of_chorus', value: 'Chorus 2' }
 */
export function directiveIn(line: string): Directive | undefined {
  const found = /^\s*\{\s*([A-Za-z_]+)(?:-[\w-]+!?)?\s*(?:[:\s]\s*(.*?))?\s*\}\s*$/.exec(line)
  if (!found) return undefined
  const name = found[1]!.toLowerCase()
  const value = found[2] ?? ''
  const label = /\blabel\s*=\s*"([^"]*)"|\blabel\s*=\s*'([^']*)'/.exec(value)
  return { name: SHORT[name] ?? name, value: label ? (label[1] ?? label[2] ?? '') : value }
}

/** Directives about fonts, colours, columns and pages: nothing of the song. */
export const OF_THE_PAGE =
  /^(?:text|chord|tab|title|toc|footer|label|grid|chorus)(?:font|size|colou?r)$|^(?:columns?|col|column_break|colb|new_page|np|new_physical_page|npp|pagetype|titles|diagrams|grid|g|no_grid|ng|image|x_.*)$/
