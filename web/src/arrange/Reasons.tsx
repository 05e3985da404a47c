import type { CostTerm, Grip } from '@velvet-porch/core'
import { useTranslation } from 'react-i18next'
import type { en } from '../texts/en.ts'

type Term = keyof (typeof en)['reasons']['term']

/** Terms whose words change with the number. */
const PLURAL: Readonly<Record<string, Term>> = {
  land: 'lands',
  guide: 'guides',
  shapeNotHeld: 'shapesNotHeld',
}

/** Why the engine chose this grip: what was charged for it, in words and units, dearest first. Folded by default. */
export function Reasons({ grip }: { grip: Grip | undefined }) {
  const { t } = useTranslation()
  const words = ({ term, quantity }: CostTerm) => {
    const n = quantity === undefined ? '' : Number(quantity.toFixed(quantity < 10 ? 1 : 0))
    const key = n !== 1 && PLURAL[term] ? PLURAL[term] : (term as Term)
    return t(`reasons.term.${key}`, { n })
  }
  const total = grip?.costs.reduce((sum, c) => sum + c.cost, 0) ?? 0
  return (
    <details className="reasons">
      <summary>{t('reasons.title')}</summary>
      {!grip || grip.costs.length === 0 ? (
        <p>{t('reasons.none')}</p>
      ) : (
        <>
          <ul data-testid="reasons">
            {grip.costs.map((c, i) => (
              <li key={i}>
                <span>{words(c)}</span>
                <span>{c.cost.toFixed(1)}</span>
              </li>
            ))}
          </ul>
          <small>{t('reasons.total', { cost: total.toFixed(1) })}</small>
        </>
      )}
    </details>
  )
}
