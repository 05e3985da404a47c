import { escaped } from '../markup.ts'
import { fill } from '../../lesson/text/template.ts'
import type { PaperWords } from '../../lesson/text/words/paperWords.ts'
import { FOOT_PX, MARGIN_PX, PAPER_PX, type Paper } from './handout.ts'

/** A piece with its height in px, margins included. */
interface Measured {
  readonly height: number
  readonly heads?: true
  /** Begins a page. */
  readonly opens?: string
}

/**
 * Which pieces stand on which page: as many as fit, no piece broken, no heading left alone at a foot, what opens a tune at the head. A piece that is
 * higher than a page has one of its own.
 * @returns indexes of pieces, page by page
 */
export function paginated(pieces: readonly Measured[], room: number): number[][] {
  const pages: number[][] = []
  let page: number[] = []
  let used = 0
  const turn = () => {
    if (page.length > 0) pages.push(page)
    page = []
    used = 0
  }
  for (let i = 0; i < pieces.length;) {
    // Headings go with the first piece after them.
    let to = i
    while (pieces[to]!.heads && to + 1 < pieces.length) to++
    const group = pieces.slice(i, to + 1)
    const height = group.reduce((sum, p) => sum + p.height, 0)
    if (used + height > room || pieces[i]!.opens !== undefined) turn()
    for (let k = i; k <= to; k++) page.push(k)
    used += height
    i = to + 1
  }
  turn()
  return pages
}

/** Height that pieces have on a page. */
export const roomOn = (paper: Paper): number => PAPER_PX[paper].height - 2 * MARGIN_PX - FOOT_PX

/** One page as HTML with its foot; the last one says what the law may ask. */
export function pageHtml(
  pieces: readonly string[],
  page: number,
  pages: number,
  words: PaperWords,
  title: string,
): string {
  const foot = [
    title,
    ...(page === pages ? [words.blocks.leave] : []),
    fill(words.blocks.page, { page, pages }),
  ]
  const spans = foot.map((text) => `<span>${escaped(text)}</span>`)
  return `<div class="page"><div class="body">${pieces.join('')}</div><footer>${spans.join('')}</footer></div>`
}
