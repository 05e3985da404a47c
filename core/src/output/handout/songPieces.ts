import { el, escaped } from '../markup.ts'
import type { Paper } from './handout.ts'
import type { Sung } from './lyricLines.ts'
import { roomOn } from './pages.ts'
import type { SongPageLine, SongPart } from './songParts.ts'

/** A piece of a song page. */
interface Piece {
  readonly html: string
  readonly heads?: true
}

/** Words with their chords over them, and what stands before them on the line. */
export const sungHtml = (line: readonly Sung[], ...before: readonly string[]): string =>
  el(
    'p',
    { class: 'sung' },
    ...before,
    ...line.map(({ chord, text }) =>
      el('span', {}, el('i', {}, escaped(chord || '\u00a0')), escaped(text || '\u00a0')),
    ),
  )

/** Heights in px of a line with chords over it, of one without, and of a heading, at the usual size. */
const LINE_PX = { chorded: 41, plain: 26, head: 30 }

/** Letters of a line that still fits half a page. */
const COLUMN_LETTERS = 44

/** Share of a page that title, facts and boxes take before the words begin. A guess. */
const TAKEN = 0.3

const times = (n: number): string => (n > 1 ? ` ×${n}` : '')

function lineHtml(line: SongPageLine): string {
  if (line.remark !== undefined) return el('p', { class: 'remark' }, escaped(line.remark))
  const who = line.singer === undefined ? [] : [el('b', { class: 'who' }, escaped(line.singer))]
  if (line.bars)
    return el(
      'p',
      { class: 'bars' },
      ...who,
      escaped(`| ${line.bars.map((b) => b || '·').join(' | ')} |${times(line.times)}`),
    )
  const counted = line.times > 1 ? [{ chord: '', text: times(line.times) }] : []
  const bare = line.sung.every((s) => s.chord === '')
  return bare
    ? el('p', {}, ...who, escaped(line.sung.map((s) => s.text).join('') + times(line.times)))
    : sungHtml([...line.sung, ...counted], ...who)
}

const partHtml = ({ name, times: n, lines, again }: SongPart): string =>
  el(
    'section',
    { class: 'part' },
    name === '' && n === 1 ? '' : el('h3', {}, escaped(name + times(n))),
    ...(again ? [] : lines.map(lineHtml)),
  )

function heightOf({ name, lines, again }: SongPart): number {
  const rows = again ? [] : lines
  const bare = (l: SongPageLine) => l.sung.every((s) => s.chord === '')
  return (
    (name === '' ? 8 : LINE_PX.head) +
    rows.reduce((sum, l) => sum + (bare(l) ? LINE_PX.plain : LINE_PX.chorded), 0)
  )
}

/**
 * The parts of a song as pieces of paper: in two columns on one page where that makes room for all of them, else one after
 * the other. A part that comes again word for word is named, not written again.
 */
export function songPieces(
  parts: readonly SongPart[],
  { paper, scale }: { readonly paper: Paper; readonly scale: number },
): Piece[] {
  const height = parts.reduce((sum, p) => sum + heightOf(p), 0) * scale
  const longest = Math.max(
    ...parts.flatMap((p) => p.lines.map((l) => l.sung.reduce((n, s) => n + s.text.length, 0))),
  )
  const room = roomOn(paper) * (1 - TAKEN)
  const columns = height > room && height <= 2 * room && longest * scale <= COLUMN_LETTERS
  return columns
    ? [{ html: el('div', { class: 'columns' }, ...parts.map(partHtml)) }]
    : parts.map((p) => ({ html: partHtml(p) }))
}
