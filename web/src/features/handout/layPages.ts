import { present } from '@velvet-porch/core/invariant'
import type { PaperWords } from '@velvet-porch/core/lesson'
import {
  escaped,
  pageHtml,
  PAPER_PX,
  paginated,
  paperCss,
  printCss,
  roomOn,
  withPageNumbers,
  type HandoutDoc,
  type PaperPiece,
} from '@velvet-porch/core/output/handout'
import type { Turns } from '@velvet-porch/core/turns'
import { chunk } from 'es-toolkit'

/** What is laid on pages, and on what paper. */
export interface Laid {
  readonly handout: Pick<HandoutDoc, 'paper' | 'large'>
  readonly pieces: readonly PaperPiece[]
  readonly words: PaperWords
  readonly title: string
}

/** Pieces that are measured between two turns. */
const A_TURN = 24

/**
 * Lays pieces on pages: measures each, breaks pages between them, and shows the pages when all are there.
 * @param measuring an unseen place of the page to measure in; it is left empty
 * @param shown where the pages are shown
 * @returns the pages as HTML
 */
export function* layingPages(
  { handout, pieces, words, title }: Laid,
  measuring: HTMLElement,
  shown: HTMLElement,
): Turns<readonly string[]> {
  const css = paperCss(handout)
  const heights = yield* measured(rootOf(measuring), css, pieces)
  const layout = paginated(
    pieces.map(({ heads, opens }, i) => ({
      height: heights[i]!,
      ...(heads ? { heads } : {}),
      ...(opens === undefined ? {} : { opens }),
    })),
    roomOn(handout.paper),
  )
  const laid = (layout.length > 0 ? layout : [[]]).map((page, i, all) =>
    pageHtml(
      page.map((k) => wrapped(pieces[k]!)),
      i + 1,
      all.length,
      words,
      title,
    ),
  )
  const pages = withPageNumbers(laid, layout, pieces)
  yield
  const made = document.createElement('div')
  made.innerHTML = `<style>${css}${printCss(handout)}${screenCss(handout)}</style>`
  for (const page of pages) {
    made.insertAdjacentHTML('beforeend', page)
    yield
  }
  rootOf(shown).replaceChildren(...made.childNodes)
  return pages
}

/** Pages on the screen lie under one another; those out of sight are not laid out until they come into it. */
function screenCss({ paper }: Pick<HandoutDoc, 'paper'>): string {
  const { width, height } = PAPER_PX[paper]
  return ` @media screen { .page { margin: 0 auto 18px; box-shadow: 0 2px 14px #0004;
    content-visibility: auto; contain-intrinsic-size: ${width}px ${height}px; } }`
}

const rootOf = (host: HTMLElement): ShadowRoot => host.shadowRoot ?? host.attachShadow({ mode: 'open' })

const wrapped = ({ html, block }: PaperPiece): string => `<div data-block="${escaped(block)}">${html}</div>`

/** Heights of pieces at the width of the page's body. A drawing says its own size: it need not be drawn. */
function* measured(root: ShadowRoot, css: string, pieces: readonly PaperPiece[]): Turns<number[]> {
  root.innerHTML = `<style>${css} .page { height: auto; } .draw > svg { display: none; }</style><div class="page"><div class="body"></div></div>`
  const body = present(root.querySelector('.body'))
  const heights: number[] = []
  for (const some of chunk(pieces, A_TURN)) {
    body.insertAdjacentHTML('beforeend', some.map(wrapped).join(''))
    for (const piece of [...body.children].slice(heights.length))
      heights.push(piece.getBoundingClientRect().height)
    yield
  }
  root.innerHTML = ''
  return heights
}
