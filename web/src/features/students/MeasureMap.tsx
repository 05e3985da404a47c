import type { MeasureState } from '@velvet-porch/core/studio'
import { useTranslation } from 'react-i18next'
import css from './students.module.css'

/** Every measure of a tune as a small field: mastered, begun, stuck, not practised. */
export function MeasureMap({ measures }: { measures: readonly MeasureState[] }) {
  const { t } = useTranslation()
  const count = (state: MeasureState) => measures.filter((m) => m === state).length
  return (
    <div
      className={css['studio-map']}
      role="img"
      aria-label={t('studio.map', {
        mastered: count('mastered'),
        begun: count('begun'),
        stuck: count('stuck'),
        fresh: count('new'),
      })}
    >
      {measures.map((state, i) => (
        <span key={i} className={css[`studio-measure-${state}`]} title={String(i + 1)} />
      ))}
    </div>
  )
}
