import { ADULT_SPANS, fingerFromNut, GUITAR, guitarSetup } from '@velvet-porch/core/instrument'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { LongNeck, type NeckMark } from '../../score/neck/LongNeck.tsx'
import css from './StretchTest.module.css'

/** Where the index finger may stand so that the little finger reaches three frets on: the lower, the wider. */
const INDEX_FRETS = [1, 2, 3, 4, 5, 7, 9] as const
const APART = 3

const reachFrom = (fret: number) =>
  fingerFromNut(GUITAR.scaleLength, fret + APART) - fingerFromNut(GUITAR.scaleLength, fret)

/**
 * Finds a hand's reach without a ruler: index and little finger on string 3, three frets apart, as near to the nut as
 * the hand can hold it at ease. The frets' own millimetres tell the span.
 */
export function StretchTest({ onMeasured }: { onMeasured: (widestMm: number) => void }) {
  const { t } = useTranslation()
  const [at, setAt] = useState<number>()
  const marks: NeckMark[] =
    at === undefined
      ? []
      : [
          { string: 3, fret: at, label: '1', look: 'root' },
          { string: 3, fret: at + APART, label: '4', look: 'root' },
        ]
  return (
    <div className="stretch-test" data-testid="stretch-test">
      <p>{t('settings.stretchText')}</p>
      <LongNeck setup={guitarSetup()} marks={marks} upTo={12} label={t('settings.stretchNeck')} />
      <div className={css['stretch-choices']}>
        {INDEX_FRETS.map((fret) => (
          <button
            key={fret}
            type="button"
            className="plain"
            aria-pressed={at === fret}
            onClick={() => {
              setAt(fret)
              // Holding it at ease means that the hand can do a little more for a moment.
              onMeasured(Math.min(ADULT_SPANS['14'] * 1.15, reachFrom(fret) * 1.08))
            }}
          >
            {t('settings.stretchChoice', { from: fret, to: fret + APART, mm: Math.round(reachFrom(fret)) })}
          </button>
        ))}
      </div>
    </div>
  )
}
