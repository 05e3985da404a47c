import type { ChordChange, FingerPosition } from '@velvet-porch/core'
import { useTranslation } from 'react-i18next'

/** What each finger does between two shapes, with its way in mm. */
export function Moves({ change }: { change: ChordChange }) {
  const { t } = useTranslation()
  const spot = (s: FingerPosition | undefined) => {
    if (!s) return ''
    return s.low === s.top
      ? t('shapes.spot', { string: s.low, fret: s.fret })
      : t('shapes.spotBarre', { low: s.low, top: s.top, fret: s.fret })
  }
  if (change.moves.length === 0) return <p className="soft">{t('shapes.move.none')}</p>
  return (
    <ul className="moves">
      {change.moves.map((m) => (
        <li key={m.finger}>
          <b>{m.finger}</b>{' '}
          {t(`shapes.move.${m.kind}`, { from: spot(m.from), to: spot(m.to), mm: Math.round(m.mm) })}
        </li>
      ))}
    </ul>
  )
}
