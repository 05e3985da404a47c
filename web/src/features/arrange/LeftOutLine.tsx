import { USUAL_SCHOOL } from '@velvet-porch/core/document'
import { useTranslation } from 'react-i18next'
import { leftOutInWorker } from '../../workers/benchWorker.ts'
import { FoundList } from './FoundList.tsx'
import type { ArrangedProps } from './arrangedProps.ts'
import { useAnswer } from '../../workers/useAnswer.ts'
import arrangeCss from './arrange.module.css'

/** Where two parts are put into one instrument: what had to be dropped, measure by measure. */
export function LeftOutLine({ tune, doc, model, onPosition }: ArrangedProps) {
  const { t } = useTranslation()
  const both = doc.regions.some((r) => (r.school ?? USUAL_SCHOOL).parts === 'both')
  const { answer: dropped } = useAnswer('leftOut', leftOutInWorker, both ? ([tune, doc] as const) : undefined)
  if (!dropped) return null
  if (dropped.length === 0)
    return (
      <p className={arrangeCss.audit} data-testid="left-out">
        {t('leftOut.none')}
      </p>
    )
  return (
    <FoundList
      title={t('leftOut.title', { count: dropped.reduce((n, d) => n + d.notes, 0) })}
      testId="left-out"
      onPosition={onPosition}
      found={dropped.map((d) => ({
        key: String(d.measure),
        position: { measure: d.measure, tick: 0 },
        where: t('sheet.measure', { number: model.numbers[d.measure]! }),
        text: t('leftOut.line', { notes: d.notes, shortened: d.shortened }),
      }))}
    />
  )
}
