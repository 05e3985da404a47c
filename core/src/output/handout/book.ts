import { el, escaped } from '../markup.ts'
import type { PaperPiece } from './blockPieces.ts'

/** A tune of a book. */
export interface BookTune {
  readonly id: string
  readonly title: string
  /** What stands beside it in the contents: how it is set up. */
  readonly setup: string
  /** What has to be done before it. */
  readonly moves: readonly string[]
  /** Its pages, as pieces. */
  readonly pieces: readonly PaperPiece[]
}

/** Words of a book that are its own. */
export interface BookWords {
  readonly title: string
  /** Under the title. */
  readonly about: string
  readonly contents: string
}

/** Stands in the contents until the pages are known. */
const pageMark = (id: string): string => `<b data-page-of="${escaped(id)}"></b>`

/** A book as pieces: its title with the contents, then every tune from a page of its own. Every text is escaped. */
export function bookPieces({ title, about, contents }: BookWords, tunes: readonly BookTune[]): PaperPiece[] {
  const front: PaperPiece[] = [
    { block: 'front', html: el('h1', {}, escaped(title)) },
    { block: 'front', html: el('p', { class: 'by' }, escaped(about)) },
    { block: 'front', html: el('h2', {}, escaped(contents)), heads: true },
    ...tunes.map(({ id, title: name, setup, moves }, i): PaperPiece => ({
      block: 'front',
      html:
        el(
          'p',
          { class: 'item' },
          `<span>${i + 1}. ${escaped(name)} <small>${escaped(setup)}</small></span>${pageMark(id)}`,
        ) + (moves.length > 0 ? el('p', { class: 'sub' }, escaped(moves.join(' · '))) : ''),
    })),
  ]
  return [
    ...front,
    ...tunes.flatMap(({ id, pieces }) => {
      // Blocks of two tunes have the same names: those of a book say whose they are.
      const own = pieces.map((p): PaperPiece => ({ ...p, block: `${id} ${p.block}` }))
      const [first, ...rest] = own
      return first ? [{ ...first, opens: id }, ...rest] : []
    }),
  ]
}

/**
 * Page numbers in the place of their marks.
 * @param layout indexes of pieces, page by page
 */
export function withPageNumbers(
  pages: readonly string[],
  layout: readonly (readonly number[])[],
  pieces: readonly PaperPiece[],
): string[] {
  const numbers = layout.flatMap((page, i) =>
    page.flatMap((k) => {
      const { opens } = pieces[k]!
      return opens === undefined ? [] : [[opens, i + 1] as const]
    }),
  )
  return pages.map((html) =>
    numbers.reduce((text, [id, number]) => text.replace(pageMark(id), () => `<b>${number}</b>`), html),
  )
}
