import { useElementSize } from '@mantine/hooks'
import { effortOf } from '@velvet-porch/core'
import { useMemo } from 'react'
import { useTranslation } from 'react-i18next'
import type { SheetModel, Spot } from '../sheet/sheetModel.ts'

/** Narrower cells show their height alone. */
const CELL_FOR_NUMBER_PX = 19

/** One cell a measure: height and number for effort, a sign for its main part. Click to go there. */
export function EffortRibbon({
  model,
  spot,
  onSpot,
}: {
  model: SheetModel
  spot: Spot | undefined
  onSpot: (spot: Spot) => void
}) {
  const { t } = useTranslation()
  const efforts = useMemo(
    () => (model.layer && model.setup ? effortOf(model.tune, model.setup, model.layer, model.timeline) : []),
    [model],
  )
  const most = Math.max(3, ...efforts.map((e) => e.effort))
  const { ref, width } = useElementSize<HTMLDivElement>()
  const numbered = width / Math.max(1, efforts.length) >= CELL_FOR_NUMBER_PX
  return (
    <div ref={ref} className="effort" role="group" aria-label={t('effort.label')}>
      {efforts.map((e) => {
        const main = e.parts[0]?.part
        const label = t('effort.cell', {
          number: model.numbers[e.measure],
          effort: e.effort,
          part: main ? t(`effort.part.${main}`) : t('effort.none'),
        })
        const hard = e.effort > most * 0.85
        return (
          <button
            key={e.measure}
            aria-label={label}
            title={label}
            className={spot?.measure === e.measure ? 'chosen' : undefined}
            style={{ height: 14 + (30 * e.effort) / most }}
            onClick={() =>
              onSpot(model.spots.find((s) => s.measure === e.measure) ?? { measure: e.measure, tick: 0 })
            }
          >
            {hard && main && numbered ? (
              <span className="mark" aria-hidden>
                {t(`effort.mark.${main}`)}
              </span>
            ) : null}
            {numbered ? <span aria-hidden>{e.effort.toFixed(1)}</span> : null}
          </button>
        )
      })}
    </div>
  )
}
