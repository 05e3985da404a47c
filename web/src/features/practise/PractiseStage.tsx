import { present } from '@velvet-porch/core/invariant'
import { useTranslation } from 'react-i18next'
import { useParams } from 'react-router'
import { useArrangement, useTune } from '../../state/useTune.ts'
import { TuneGate } from '../../ui/TuneGate.tsx'
import { NoTab } from '../lesson/NoTab.tsx'
import { PractiseView } from './PractiseView.tsx'

/** A tune practised: what is due today, piece by piece, faster only when it is clean. */
export function PractiseStage() {
  const { t } = useTranslation()
  const id = present(useParams().id)
  const opened = useTune(id)
  const doc = useArrangement(id)
  return (
    <TuneGate opened={opened}>
      {(tune) =>
        doc === undefined ? null : doc === null ? (
          <NoTab tuneId={id} text={t('practise.nothing')} />
        ) : (
          <PractiseView key={id} tune={tune} written={doc} />
        )
      }
    </TuneGate>
  )
}
