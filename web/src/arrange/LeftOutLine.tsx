import { USUAL_SCHOOL, type ArrangementDoc, type LeftOut, type TuneDoc } from '@velvet-porch/core'
import { useEffect, useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { SheetModel, Spot } from '../sheet/sheetModel.ts'
import { leftOutInWorker } from '../worker/benchWorker.ts'

/** Where two parts are put into one instrument: what had to be dropped, measure by measure. */
export function LeftOutLine({
  tune,
  doc,
  model,
  onSpot,
}: {
  tune: TuneDoc
  doc: ArrangementDoc
  model: SheetModel
  onSpot: (spot: Spot) => void
}) {
  const { t } = useTranslation()
  const [dropped, setDropped] = useState<readonly LeftOut[]>()
  const both = doc.regions.some((r) => (r.school ?? USUAL_SCHOOL).parts === 'both')
  useEffect(() => {
    if (!both) return
    let left = false
    void leftOutInWorker(tune, doc).then((found) => {
      if (!left) setDropped(found)
    })
    return () => {
      left = true
    }
  }, [tune, doc, both])
  if (!both || !dropped) return null
  if (dropped.length === 0)
    return (
      <p className="audit" data-testid="left-out">
        {t('leftOut.none')}
      </p>
    )
  return (
    <details className="reasons" data-testid="left-out">
      <summary>{t('leftOut.title', { count: dropped.reduce((n, d) => n + d.notes, 0) })}</summary>
      <ul className="problems">
        {dropped.map((d) => (
          <li key={d.measure}>
            <button onClick={() => onSpot({ measure: d.measure, tick: 0 })}>
              <strong>{t('sheet.measure', { number: model.numbers[d.measure] })}</strong>{' '}
              {t('leftOut.line', { notes: d.notes, shortened: d.shortened })}
            </button>
          </li>
        ))}
      </ul>
    </details>
  )
}
