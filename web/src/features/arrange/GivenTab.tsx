import { filledRound, type ArrangementDoc, type TuneDoc } from '@velvet-porch/core/document'
import { useTranslation } from 'react-i18next'
import type { MarkedMeasures } from '../../score/sheet/selection.ts'
import { Act, Notice } from './Notice.tsx'
import type { BenchArranger } from './useArranger.ts'

/** Says that a tab is as it was given, and fills round it where that is asked for. */
export function GivenTab({
  tune,
  doc,
  marked,
  arranger,
}: {
  tune: TuneDoc
  doc: ArrangementDoc
  marked: MarkedMeasures | undefined
  arranger: BenchArranger
}) {
  const { t } = useTranslation()
  const given = doc.regions.filter((r) => r.given)
  if (given.length === 0) return null
  const whole = given.length === doc.regions.length
  const { from, to } = marked ?? { from: 0, to: tune.measures.length - 1 }
  const fill = () =>
    void arranger.choose(t('arrange.command.fillRound'), (now) => ({
      regions: filledRound(tune, now.regions, from, to),
    }))
  return (
    <Notice testId="given-tab" text={t(whole ? 'sections.given' : 'sections.givenInPart')}>
      <Act plain onClick={fill}>
        {t(marked ? 'sections.fillMarked' : 'sections.fillRound')}
      </Act>
    </Notice>
  )
}
