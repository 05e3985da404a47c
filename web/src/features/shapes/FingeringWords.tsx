import type { FingeringReason } from '@velvet-porch/core/hand'
import { useTranslation } from 'react-i18next'
import css from './FingeringWords.module.css'

/** How many reasons for and against are said. */
const SAID = 3

/** Why a fingering is easy or hard: the dearest parts, then what speaks for it. */
export function FingeringWords({ reasons }: { reasons: readonly FingeringReason[] }) {
  const { t } = useTranslation()
  const against = reasons.filter((r) => r.cost > 0.3).slice(0, SAID)
  const inFavour = reasons
    .filter((r) => r.cost < -0.3)
    .reverse()
    .slice(0, SAID)
  const words = (list: readonly FingeringReason[]) =>
    list.map((r) => t(`fingering.${r.feature}`, { n: r.amount })).join(', ')
  return (
    <span className={css['fingering-words']}>
      {against.length > 0 ? t('fingering.against', { reasons: words(against) }) : t('fingering.easy')}
      {inFavour.length > 0 ? ` ${t('fingering.inFavour', { reasons: words(inFavour) })}` : ''}
    </span>
  )
}
