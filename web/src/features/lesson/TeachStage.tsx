import { useTranslation } from 'react-i18next'
import { LessonView } from './LessonView.tsx'
import { TabGate } from './TabGate.tsx'

/** The tab taught moment by moment: what each finger does, what is plucked, how it is counted. */
export function TeachStage() {
  const { t } = useTranslation()
  return (
    <TabGate nothing={t('teach.nothing')}>
      {(tune, doc) => <LessonView key={tune.id} tune={tune} written={doc} />}
    </TabGate>
  )
}
