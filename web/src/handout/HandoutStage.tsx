import type { ArrangementDoc, TuneDoc } from '@velvet-porch/core'
import type { HandoutDoc } from '@velvet-porch/core/paper'
import { useTranslation } from 'react-i18next'
import { useParams } from 'react-router'
import { useAsPlayed } from '../arrange/useAsPlayed.ts'
import { useHandout } from '../store/handouts.ts'
import { useArrangement, useTune } from '../store/useTune.ts'
import { TuneGate } from '../tune/TuneGate.tsx'
import { NoTab } from '../teach/NoTab.tsx'
import { Handout } from './Handout.tsx'

/** What a student takes home: pages composed of blocks, a PDF, a lesson file. */
export function HandoutStage() {
  const { t } = useTranslation()
  const id = useParams().id!
  const opened = useTune(id)
  const doc = useArrangement(id)
  const handout = useHandout(id)
  return (
    <TuneGate opened={opened}>
      {(tune) =>
        doc === undefined || !handout ? null : doc === null ? (
          <NoTab tuneId={id} text={t('handout.nothing')} />
        ) : (
          <Played key={id} tune={tune} doc={doc} kept={handout} />
        )
      }
    </TuneGate>
  )
}

function Played({ tune, doc, kept }: { tune: TuneDoc; doc: ArrangementDoc; kept: HandoutDoc }) {
  const { played } = useAsPlayed(tune, doc, false)
  return <Handout tune={tune} doc={played} kept={kept} />
}
