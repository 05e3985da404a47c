import { useTranslation } from 'react-i18next'
import { ornamentsLeftInWorker } from '../../workers/benchWorker.ts'
import { FoundList } from './FoundList.tsx'
import type { ArrangedProps } from './arrangedProps.ts'
import { useAnswer } from '../../workers/useAnswer.ts'

/** Ornaments of the source, and ways to sound a note that were asked for, that are not played; each with its reason. */
export function OrnamentsLeft({ tune, doc, model, onPosition }: ArrangedProps) {
  const { t } = useTranslation()
  const has =
    tune.events.some((e) => e.graces.length + e.ornaments.length > 0) ||
    doc.base.locks.some((l) => l.field === 'attack')
  const { answer: left } = useAnswer(
    'ornamentsLeft',
    ornamentsLeftInWorker,
    has ? ([tune, doc] as const) : undefined,
  )
  if (!left || left.length === 0) return null
  return (
    <FoundList
      title={t('ornament.left', { count: left.length })}
      testId="ornaments-left"
      onPosition={onPosition}
      found={left.map((l) => ({
        key: `${l.measure}.${l.tick}`,
        position: { measure: l.measure, tick: l.tick },
        where: t('sheet.measure', { number: model.numbers[l.measure]! }),
        text: t(`ornament.reason.${l.reason}`),
      }))}
    />
  )
}
