import { useElementSize } from '@mantine/hooks'
import type { PaperWords } from '@velvet-porch/core/lesson'
import { PAPER_PX, type HandoutDoc, type PaperPiece } from '@velvet-porch/core/output/handout'
import { useEffect, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { inTurns } from '../../workers/inTurns.ts'
import { layingPages } from './layPages.ts'
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
  /** Absent until they are made. */
  pieces: readonly PaperPiece[] | undefined
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
    if (!pieces) return undefined
    let dropped = false
    const lay = async () => {
      if (dropped || !measuring.current || !shown.current) return
      const laid = { handout: { paper, large }, pieces, words, title }
      const pages = await inTurns(layingPages(laid, measuring.current, shown.current), {
        isStopped: () => dropped,
      })
      if (!pages) return
      setCount(pages.length)
      onPages(pages)
    }
    // What is measured before its fonts are there is measured wrong.
    void Promise.all(FONTS.map((f) => document.fonts.load(f))).then(lay, lay)
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
        {count > 0 ? t('handout.count', { count }) : t('handout.making')}
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
