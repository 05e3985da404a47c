import type { ArrangementDoc, LeftOrnament, TuneDoc } from '@velvet-porch/core'
import { useEffect, useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { SheetModel, Spot } from '../sheet/sheetModel.ts'
import { ornamentsLeftInWorker } from '../worker/benchWorker.ts'

/** Ornaments of the source, and ways to sound a note that were asked for, that are not played; each with its reason. */
export function OrnamentsLeft({
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
  const [left, setLeft] = useState<readonly LeftOrnament[]>([])
  const has =
    tune.events.some((e) => e.graces.length + e.ornaments.length > 0) ||
    doc.base.locks.some((l) => l.field === 'attack')
  useEffect(() => {
    setLeft([])
    if (!has) return
    let gone = false
    void ornamentsLeftInWorker(tune, doc).then((found) => {
      if (!gone) setLeft(found)
    })
    return () => {
      gone = true
    }
  }, [tune, doc, has])
  if (left.length === 0) return null
  return (
    <details className="reasons" data-testid="ornaments-left">
      <summary>{t('ornament.left', { count: left.length })}</summary>
      <ul className="problems">
        {left.map((l) => (
          <li key={`${l.measure}.${l.tick}`}>
            <button onClick={() => onSpot({ measure: l.measure, tick: l.tick })}>
              <strong>{t('sheet.measure', { number: model.numbers[l.measure] })}</strong>{' '}
              {t(`ornament.reason.${l.reason}`)}
            </button>
          </li>
        ))}
      </ul>
    </details>
  )
}
