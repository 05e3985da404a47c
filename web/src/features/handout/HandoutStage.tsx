import { present } from '@velvet-porch/core/invariant'
import { useTranslation } from 'react-i18next'
import { useParams } from 'react-router'
import { useHandout } from '../../state/handouts.ts'
import { useArrangement, useTune } from '../../state/useTune.ts'
import { TuneGate } from '../../ui/TuneGate.tsx'
import { NoTab } from '../lesson/NoTab.tsx'
import { Handout } from './Handout.tsx'

/** What a student takes home: pages composed of blocks, a PDF, a lesson file. */
export function HandoutStage() {
  const { t } = useTranslation()
  const id = present(useParams().id)
  const opened = useTune(id)
  const doc = useArrangement(id)
  const handout = useHandout(id)
  return (
    <TuneGate opened={opened}>
      {(tune) =>
        doc === undefined || !handout ? null : doc === null ? (
          <NoTab tuneId={id} text={t('handout.nothing')} />
        ) : (
          <Handout key={id} tune={tune} written={doc} kept={handout} />
        )
      }
    </TuneGate>
  )
}
