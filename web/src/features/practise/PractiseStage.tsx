import { useTranslation } from 'react-i18next'
import { TabGate } from '../lesson/TabGate.tsx'
import { PractiseView } from './PractiseView.tsx'

/** A tune practised: what is due today, piece by piece, faster only when it is clean. */
export function PractiseStage() {
  const { t } = useTranslation()
  return (
    <TabGate nothing={t('practise.nothing')}>
      {(tune, doc) => <PractiseView key={tune.id} tune={tune} written={doc} />}
    </TabGate>
  )
}
