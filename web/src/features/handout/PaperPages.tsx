import { useElementSize } from '@mantine/hooks'
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
import { useEffect, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import css from './PaperPages.module.css'

/**
 * The pages as they are printed, in a shadow of their own, so that nothing of the app's look gets on paper. Pieces are
 * measured first, then laid on pages.
 */
export function PaperPages({
  handout,
  pieces,
  words,
  title,
  onPages,
}: {
  handout: HandoutDoc
  pieces: readonly PaperPiece[]
  words: PaperWords
  title: string
  onPages: (pages: readonly string[]) => void
}) {
  const { t } = useTranslation()
  const { ref, width } = useElementSize<HTMLDivElement>()
  const measuring = useRef<HTMLDivElement>(null)
  const shown = useRef<HTMLDivElement>(null)
  const [count, setCount] = useState(0)
  const { paper, large } = handout
  useEffect(() => {
    let dropped = false
    const css = paperCss({ paper, large })
    const make = () => {
      if (dropped || !measuring.current || !shown.current) return
      const heights = measured(rootOf(measuring.current), css, pieces)
      const layout = paginated(
        pieces.map(({ heads, opens }, i) => ({
          height: heights[i]!,
          ...(heads ? { heads } : {}),
          ...(opens === undefined ? {} : { opens }),
        })),
        roomOn(paper),
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
      const look = `${css}${printCss({ paper })} @media screen { .page { margin: 0 auto 18px; box-shadow: 0 2px 14px #0004; } }`
      rootOf(shown.current).innerHTML = `<style>${look}</style>${pages.join('')}`
      setCount(pages.length)
      onPages(pages)
    }
    // What is measured before its fonts are there is measured wrong.
    void Promise.all(FONTS.map((f) => document.fonts.load(f))).then(make, make)
    return () => {
      dropped = true
    }
  }, [paper, large, pieces, words, title, onPages])
  const room = PAPER_PX[paper].width + 36
  return (
    <div
      className={css['handout-pages']}
      ref={ref}
      data-testid="pages"
      tabIndex={0}
      role="region"
      aria-label={t('handout.pages')}
    >
      <style>{`@page { size: ${paper === 'a4' ? 'A4' : 'letter'}; margin: 0 }`}</style>
      <p className="soft no-print" role="status">
        {t('handout.count', { count })}
      </p>
      <div className={css['handout-measuring']} ref={measuring} aria-hidden="true" />
      <div
        className={css['handout-paper']}
        ref={shown}
        style={{ zoom: width > 0 && width < room ? width / room : 1 }}
      />
    </div>
  )
}

const FONTS = [
  '13px "Figtree Variable"',
  '700 13px "Figtree Variable"',
  '600 30px "Fraunces Variable"',
  '500 12px "Fira Mono"',
]

const rootOf = (host: HTMLElement): ShadowRoot => host.shadowRoot ?? host.attachShadow({ mode: 'open' })

const wrapped = ({ html, block }: PaperPiece): string => `<div data-block="${escaped(block)}">${html}</div>`

/** Heights of pieces at the width of the page's body. */
function measured(root: ShadowRoot, css: string, pieces: readonly PaperPiece[]): number[] {
  root.innerHTML = `<style>${css} .page { height: auto; }</style><div class="page"><div class="body">${pieces.map(wrapped).join('')}</div></div>`
  return [...root.querySelectorAll<HTMLElement>('.body > *')].map((e) => e.getBoundingClientRect().height)
}
