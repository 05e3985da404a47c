import { remarkText, type AccompanyRemark, type ArrangementDoc, type TuneDoc } from '@velvet-porch/core'
import { useEffect, useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { SheetModel, Spot } from '../sheet/sheetModel.ts'
import { remarksInWorker } from '../worker/benchWorker.ts'

/** What could not be played as it was asked, and what is played instead. */
export function AccompanyRemarks({
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
  const [remarks, setRemarks] = useState<readonly AccompanyRemark[]>([])
  useEffect(() => {
    setRemarks([])
    let left = false
    void remarksInWorker(tune, doc).then((found) => {
      if (!left) setRemarks(found)
    })
    return () => {
      left = true
    }
  }, [tune, doc])
  if (remarks.length === 0) return null
  return (
    <details className="reasons" data-testid="remarks" open>
      <summary>{t('accompany.remarks', { count: remarks.length })}</summary>
      <ul className="problems">
        {remarks.map((r, i) => (
          <li key={i}>
            <button onClick={() => onSpot({ measure: r.measure, tick: 0 })}>
              {remarkText(r, model.numbers[r.measure]!)}
            </button>
          </li>
        ))}
      </ul>
    </details>
  )
}
