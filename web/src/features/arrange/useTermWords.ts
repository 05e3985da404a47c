import type { CostTerm } from '@velvet-porch/core/document'
import { tasteOfTerm } from '@velvet-porch/core/arrange'
import { useCallback } from 'react'
import { useTranslation } from 'react-i18next'
import type { stages } from '../../texts/stages.ts'
import { useTasteWords } from '../taste/useTasteWords.ts'

type Term = keyof (typeof stages)['reasons']['term']

/** Terms whose words change with the number. */
const PLURAL: Readonly<Record<string, Term>> = {
  land: 'lands',
  guide: 'guides',
  shapeNotHeld: 'shapesNotHeld',
  voicingNotHeld: 'voicingsNotHeld',
}

/** A cost term in words, with its quantity in its unit. */
export function useTermWords(): (term: CostTerm) => string {
  const { t } = useTranslation()
  const taste = useTasteWords()
  return useCallback(
    ({ term, cost, quantity }) => {
      const feature = tasteOfTerm(term)
      if (feature) return t('taste.because', { what: taste.feature(feature, cost < 0) })
      const n = quantity === undefined ? '' : Number(quantity.toFixed(quantity < 10 ? 1 : 0))
      const key = n !== 1 && PLURAL[term] ? PLURAL[term] : (term as Term)
      return t(`reasons.term.${key}`, { n })
    },
    [t, taste],
  )
}
