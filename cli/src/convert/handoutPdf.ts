import type { Browser } from 'playwright-core'
import { isSongAlone, type Score } from '@velvet-porch/core/document'
import { lessonOf, USUAL_LESSON } from '@velvet-porch/core/lesson'
import {
  bookPieces,
  escaped,
  handoutPieces,
  pageHtml,
  paginated,
  paperCss,
  printCss,
  roomOn,
  setupFacts,
  usualHandout,
  withPageNumbers,
  type HandoutDoc,
  type PaperPiece,
} from '@velvet-porch/core/output/handout'

/** One tune as the handout that most teachers give, or several as a book with a title and contents. */
export interface Printed {
  readonly title: string
  readonly scores: readonly Required<Score>[]
  /** True for a book, also of one tune. */
  readonly isBook: boolean
}

/** Said to the browser: the heights of the pieces, once their fonts are there. */
const MEASURE =
  'document.fonts.ready.then(() => [...document.querySelectorAll(".body > *")].map((e) => e.getBoundingClientRect().height))'

const lessonFor = ({ tune, arrangement }: Required<Score>) => lessonOf(tune, arrangement, USUAL_LESSON)

/**
 * A handout or a book as a PDF on A4: the pieces are measured in the browser that prints them, so that none is cut by a page's end.
 * @param fonts rules for the fonts of the paper
 */
export async function handoutPdf(
  { title, scores, isBook }: Printed,
  browser: Browser,
  fonts: string,
): Promise<Uint8Array> {
  const handout = usualHandout('handout')
  const pieces = isBook ? piecesOfBook(title, scores) : scores.flatMap(piecesOf)
  const words = lessonFor(scores[0]!).phrasing.paper
  const context = await browser.newContext({ offline: true })
  try {
    const page = await context.newPage()
    const html = (body: string) =>
      `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${escaped(title)}</title><style>${fonts}${paperCss(handout)}${printCss(handout)}</style></head><body style="margin:0">${body}</body></html>`
    await page.setContent(
      html(
        `<style>.page { height: auto }</style><div class="page"><div class="body">${pieces.map(wrapped).join('')}</div></div>`,
      ),
    )
    const heights = await page.evaluate<number[]>(MEASURE)
    const layout = paginated(
      pieces.map(({ heads, opens }, i) => ({
        height: heights[i] ?? 0,
        ...(heads ? { heads } : {}),
        ...(opens === undefined ? {} : { opens }),
      })),
      roomOn(handout.paper),
    )
    const laid = layout.map((own, i) =>
      pageHtml(
        own.flatMap((k) => (pieces[k] ? [wrapped(pieces[k])] : [])),
        i + 1,
        layout.length,
        words,
        title,
      ),
    )
    await page.setContent(html(withPageNumbers(laid, layout, pieces).join('')))
    return await page.pdf({ preferCSSPageSize: true, printBackground: true })
  } finally {
    await context.close()
  }
}

const wrapped = ({ html, block }: PaperPiece): string => `<div data-block="${escaped(block)}">${html}</div>`

const handoutOf = ({ tune }: Required<Score>): HandoutDoc => usualHandout('handout', isSongAlone(tune))

const piecesOf = (score: Required<Score>): PaperPiece[] => handoutPieces(handoutOf(score), lessonFor(score))

const piecesOfBook = (title: string, scores: readonly Required<Score>[]): PaperPiece[] =>
  bookPieces(
    { title, about: `${scores.length} ${scores.length === 1 ? 'tune' : 'tunes'}`, contents: 'Contents' },
    scores.map((score, i) => ({
      id: `t${i + 1}`,
      title: score.tune.title,
      setup: setupFacts(lessonFor(score)).slice(0, 3).join(' · '),
      moves: [],
      pieces: piecesOf(score),
    })),
  )
