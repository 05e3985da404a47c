import type { MeasureEffort } from '@velvet-porch/core/hand'
import { useElementSize } from '@mantine/hooks'
import { isEqual } from 'es-toolkit'
import type { TFunction } from 'i18next'
import { memo } from 'react'
import { useTranslation } from 'react-i18next'
import { alongSeries } from '../../ui/alongSeries.ts'

/** Narrower cells show their height alone. */
const CELL_FOR_NUMBER_PX = 19

/** One cell a measure. */
export function EffortCells({
  efforts,
  numbers,
  goal,
  chosen,
  onMeasure,
}: {
  readonly efforts: readonly MeasureEffort[]
  readonly numbers: readonly number[]
  readonly goal: number
  readonly chosen: number | undefined
  readonly onMeasure: (measure: number) => void
}) {
  const { t } = useTranslation()
  const { ref, width } = useElementSize<HTMLDivElement>()
  const most = Math.max(3, ...efforts.map((e) => e.effort))
  const numbered = width / Math.max(1, efforts.length) >= CELL_FOR_NUMBER_PX
  // One stop of the Tab key for all cells: the arrow keys go along them.
  const stop = efforts.find((e) => e.measure === chosen)?.measure ?? efforts[0]?.measure
  return (
    <div
      ref={ref}
      className="effort"
      role="group"
      aria-label={t('effort.label')}
      data-series
      onKeyDown={alongSeries}
    >
      {efforts.map((e) => (
        <EffortCell
          key={e.measure}
          effort={e}
          number={numbers[e.measure]!}
          most={most}
          slow={e.ceiling !== undefined && e.ceiling.bpm < goal}
          chosen={e.measure === chosen}
          isStop={e.measure === stop}
          numbered={numbered}
          onMeasure={onMeasure}
        />
      ))}
    </div>
  )
}

interface CellProps {
  readonly effort: MeasureEffort
  readonly number: number
  /** The most effort of a measure of the tune. */
  readonly most: number
  readonly slow: boolean
  readonly chosen: boolean
  /** True for the cell at which the Tab key stops. */
  readonly isStop: boolean
  readonly numbered: boolean
  readonly onMeasure: (measure: number) => void
}

/** One measure's effort. A typed note changes that of its measure: the words of two hundred others are not put together again. */
const EffortCell = memo(function EffortCell({
  effort: e,
  number,
  most,
  slow,
  chosen,
  isStop,
  numbered,
  onMeasure,
}: CellProps) {
  const { t } = useTranslation()
  const main = e.parts[0]?.part
  const label = cellText(t, e, number, slow)
  return (
    <button
      tabIndex={isStop ? 0 : -1}
      aria-label={label}
      title={label}
      className={[chosen ? 'chosen' : '', slow ? 'slow' : ''].join(' ').trim()}
      style={{ height: 14 + (30 * e.effort) / most }}
      onClick={() => onMeasure(e.measure)}
    >
      {e.effort > most * 0.85 && main && numbered ? (
        <span className="mark" aria-hidden>
          {t(`effort.mark.${main}`)}
        </span>
      ) : null}
      {numbered ? <span aria-hidden>{e.effort.toFixed(1)}</span> : null}
    </button>
  )
}, isEqual)

function cellText(t: TFunction, e: MeasureEffort, number: number, slow: boolean): string {
  const parts = e.parts
    .slice(0, 3)
    .map((p) => t(`effort.value.${p.part}`, { n: Number(p.value.toFixed(p.value < 10 ? 1 : 0)) }))
  const ceiling = e.ceiling
    ? t(slow ? 'effort.ceilingUnder' : 'effort.ceiling', {
        bpm: e.ceiling.bpm,
        reason: t(`effort.reason.${e.ceiling.reason}`),
      })
    : ''
  return [
    t('effort.cell', { number, effort: e.effort, parts: parts.join(', ') || t('effort.none') }),
    ceiling,
  ]
    .filter(Boolean)
    .join('; ')
}
