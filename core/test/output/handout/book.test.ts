import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  bookPieces,
  paginated,
  withPageNumbers,
  type BookTune,
  type PaperPiece,
} from '../../../src/output/handout/index.ts'

const WORDS = { title: 'Evening', about: 'Two tunes', contents: 'Contents' }

const tuneOf = (id: string, pieces: number): BookTune => ({
  id,
  title: `Tune <${id}>`,
  setup: 'capo & fret 2',
  moves: ['String 6 from E2 down to D2'],
  pieces: Array.from({ length: pieces }, (_, i): PaperPiece => ({
    block: `b${i}`,
    html: `<p>${id}.${i}</p>`,
  })),
})

/** The pages of a book, each piece as high as it is said. */
function laidOut(tunes: readonly BookTune[], height: (piece: number) => number) {
  const pieces = bookPieces(WORDS, tunes)
  const layout = paginated(
    pieces.map(({ heads, opens }, i) => ({
      height: height(i),
      ...(heads ? { heads } : {}),
      ...(opens === undefined ? {} : { opens }),
    })),
    900,
  )
  const pages = layout.map((page) => page.map((k) => pieces[k]!.html).join(''))
  return { pieces, layout, pages: withPageNumbers(pages, layout, pieces) }
}

describe('a book of tunes', () => {
  it('begins each tune on a page of its own, in order, and its contents say which', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 7 }), { minLength: 1, maxLength: 30 }),
        fc.integer({ min: 20, max: 500 }),
        (counts, height) => {
          const tunes = counts.map((count, i) => tuneOf(`t${i}`, count))
          const { pages } = laidOut(tunes, () => height)
          const numbers = tunes.map(({ id }) => {
            const page = pages.findIndex((html) => html.includes(`<p>${id}.0</p>`))
            // Nothing stands before it on its page.
            expect(pages[page]!.startsWith(`<p>${id}.0</p>`)).toBe(true)
            return page + 1
          })
          expect(numbers).toEqual([...numbers].sort((a, b) => a - b))
          const said = [...pages.join('').matchAll(/<b>(\d+)<\/b>/g)].map((m) => Number(m[1]))
          expect(said).toEqual(numbers)
          expect(pages.join('')).not.toContain('data-page-of')
        },
      ),
      { numRuns: 60 },
    )
  })

  it('has every piece once, and every text escaped', () => {
    const tunes = [tuneOf('a', 3), tuneOf('b', 2)]
    const { pages, layout, pieces } = laidOut(tunes, () => 100)
    expect(layout.flat()).toEqual(pieces.map((_, i) => i))
    expect(pages.join('')).toContain('Tune &#60;a&#62;')
    expect(pages.join('')).toContain('capo &#38; fret 2')
    expect(new Set(pieces.slice(5).map((p) => p.block)).size).toBe(5)
  })

  it('leaves a tune without pages in the contents, without a number', () => {
    const { pages } = laidOut([tuneOf('a', 0), tuneOf('b', 1)], () => 100)
    expect(pages).toHaveLength(2)
    expect([...pages.join('').matchAll(/<b>(\d+)<\/b>/g)].map((m) => m[1])).toEqual(['2'])
  })
})
