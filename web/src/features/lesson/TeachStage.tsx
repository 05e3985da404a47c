import { present } from '@velvet-porch/core/invariant'
import { useTranslation } from 'react-i18next'
import { useParams } from 'react-router'
import { useArrangement, useTune } from '../../state/useTune.ts'
import { TuneGate } from '../../ui/TuneGate.tsx'
import { LessonView } from './LessonView.tsx'
import { NoTab } from './NoTab.tsx'

/** The tab taught moment by moment: what each finger does, what is plucked, how it is counted. */
export function TeachStage() {
  const { t } = useTranslation()
  const id = present(useParams().id)
  const opened = useTune(id)
  const doc = useArrangement(id)
  return (
    <TuneGate opened={opened}>
      {(tune) =>
        doc === undefined ? null : doc === null ? (
          <NoTab tuneId={id} text={t('teach.nothing')} />
        ) : (
          <LessonView key={id} tune={tune} written={doc} />
        )
      }
    </TuneGate>
  )
}
