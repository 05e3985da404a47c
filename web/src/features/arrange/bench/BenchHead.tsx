import { memo, Suspense } from 'react'
import { brought } from '../../../ui/brought.ts'
import { EffortRibbon } from '../EffortRibbon.tsx'
import { GivenTab } from '../GivenTab.tsx'
import { Pins } from '../Pins.tsx'
import { ArrangeHead } from './ArrangeHead.tsx'
import { useBenchPage, useBenchStore, useSetBench } from './BenchContext.ts'
import { BenchNotices } from './BenchNotices.tsx'

const TabWriteBar = brought(async () => (await import('../../../score/edit/TabWriteBar.tsx')).TabWriteBar)

/** What stands over the sheet: the choices, what has to be said, the pen's tools, and effort. */
export const BenchHead = memo(function BenchHead() {
  const { tune, doc, model, out, arranger, position, marked, writing } = useBenchPage()
  const store = useBenchStore()
  const onPosition = useSetBench('position')
  return (
    <div className="bench-head">
      <ArrangeHead />
      <BenchNotices />
      {doc && tune ? <GivenTab tune={tune} doc={doc} marked={marked} arranger={arranger} /> : null}
      {writing?.on && doc ? (
        <Suspense>
          <TabWriteBar
            model={model}
            doc={doc}
            writing={writing}
            marked={marked}
            markedNow={() => store.getState().marked}
            onArrange={arranger.rearrange}
          />
        </Suspense>
      ) : null}
      {tune?.pins?.length ? <Pins tune={tune} /> : null}
      <EffortRibbon
        model={model}
        doc={out ?? doc}
        position={out ? undefined : position}
        onPosition={onPosition}
      />
    </div>
  )
})
