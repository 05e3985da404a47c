import type { ChordChange } from '@velvet-porch/core/chords'
import type { FingerSpan } from '@velvet-porch/core/hand'
import { useTranslation } from 'react-i18next'
import css from './Moves.module.css'

/** What each finger does between two shapes, with its way in mm. */
export function Moves({ change }: { change: ChordChange }) {
  const { t } = useTranslation()
  const spot = (s: FingerSpan | undefined) => {
    if (!s) return ''
    return s.from === s.to
      ? t('shapes.spot', { string: s.to, fret: s.fret })
      : t('shapes.spotBarre', { low: s.to, top: s.from, fret: s.fret })
  }
  if (change.moves.length === 0) return <p className="soft">{t('shapes.move.none')}</p>
  return (
    <ul className={css.moves}>
      {change.moves.map((m) => (
        <li key={m.finger}>
          <b>{m.finger}</b>{' '}
          {t(`shapes.move.${m.kind}`, { from: spot(m.before), to: spot(m.now), mm: Math.round(m.mm) })}
        </li>
      ))}
    </ul>
  )
}
