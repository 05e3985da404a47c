import type { Grip } from '@velvet-porch/core/document'
import type { ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import { useTermWords } from './useTermWords.ts'

/** Why the engine chose this grip: what was charged for it, in words and units, dearest first. Folded by default. */
export function Reasons({
  grip,
  open,
  onOpen,
  children,
}: {
  grip: Grip | undefined
  open: boolean
  onOpen: (open: boolean) => void
  children?: ReactNode
}) {
  const { t } = useTranslation()
  const words = useTermWords()
  const total = grip?.costs.reduce((sum, c) => sum + c.cost, 0) ?? 0
  return (
    <details className="reasons" open={open} onToggle={(e) => onOpen(e.currentTarget.open)}>
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
      {children}
    </details>
  )
}
