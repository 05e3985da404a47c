import type { ArrangementDoc, TuneDoc } from '@velvet-porch/core/document'
import type { EffortVersion, MeasureRange } from '@velvet-porch/core/arrange'
import { useMemo, useState } from 'react'
import { versionsInWorker } from '../../workers/benchWorker.ts'
import { useAnswer } from '../../workers/useAnswer.ts'

/** Versions of some measures, ordered by effort; the one without changes is how it is now. */
export interface FoundVersions {
  readonly versions: readonly EffortVersion[]
  readonly range: MeasureRange
  /** Absent where nothing could be arranged. */
  readonly now: EffortVersion | undefined
}

const versionsOf = (tune: TuneDoc, { setup, regions, base }: ArrangementDoc, range: MeasureRange) =>
  versionsInWorker({ tune, setup, regions, locks: base.locks }, range)

/** Looks for easier and fuller versions of measures; what was found is dropped when the arrangement changes. */
export function useEffortVersions(tune: TuneDoc, doc: ArrangementDoc) {
  const [asked, setAsked] = useState<{ readonly range: MeasureRange; readonly doc: ArrangementDoc }>()
  const range = asked?.doc === doc ? asked.range : undefined
  const { answer: versions, asking: looking } = useAnswer(
    'versions',
    versionsOf,
    range && ([tune, doc, range] as const),
  )
  const found = useMemo(
    (): FoundVersions | undefined =>
      versions && range && { versions, range, now: versions.find((r) => r.changes.length === 0) },
    [versions, range],
  )
  return {
    found,
    looking,
    look: (range: MeasureRange) => setAsked({ range, doc }),
    drop: () => setAsked(undefined),
  }
}
