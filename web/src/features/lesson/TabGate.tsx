import type { ArrangementDoc, TuneDoc } from '@velvet-porch/core/document'
import { present } from '@velvet-porch/core/invariant'
import type { ReactNode } from 'react'
import { useParams } from 'react-router'
import { useArrangement, useTune } from '../../state/useTune.ts'
import { TuneGate } from '../../ui/TuneGate.tsx'
import { NoTab } from './NoTab.tsx'

/** A stage that goes by the tab of the tune in the address; where there is none it says what to do. */
export function TabGate({
  nothing,
  children,
}: {
  nothing: string
  children: (tune: TuneDoc, doc: ArrangementDoc) => ReactNode
}) {
  const id = present(useParams().id)
  const opened = useTune(id)
  const doc = useArrangement(id)
  return (
    <TuneGate opened={opened}>
      {(tune) =>
        doc === undefined ? null : doc === null ? <NoTab tuneId={id} text={nothing} /> : children(tune, doc)
      }
    </TuneGate>
  )
}
