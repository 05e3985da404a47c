import { remarkMessages } from '@velvet-porch/core/arrange'
import { useTranslation } from 'react-i18next'
import { remarksInWorker } from '../../workers/benchWorker.ts'
import { say } from '../../texts/say.ts'
import { FoundList } from './FoundList.tsx'
import type { ArrangedProps } from './arrangedProps.ts'
import { useAnswer } from '../../workers/useAnswer.ts'

/** What could not be played as it was asked, and what is played instead. */
export function AccompanyRemarks({ tune, doc, model, onPosition }: ArrangedProps) {
  const { t } = useTranslation()
  const { answer: remarks } = useAnswer('remarks', remarksInWorker, [tune, doc] as const)
  if (!remarks || remarks.length === 0) return null
  return (
    <FoundList
      title={t('accompany.remarks', { count: remarks.length })}
      testId="remarks"
      open
      onPosition={onPosition}
      found={remarks.map((r, i) => ({
        key: String(i),
        position: { measure: r.measure, tick: 0 },
        text: remarkMessages(r, model.numbers[r.measure]!)
          .map((m) => say(t, m))
          .join(' '),
      }))}
    />
  )
}
