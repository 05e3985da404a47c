import type { ArrangementDoc, MeasureRange, EffortVersion, TuneDoc } from '@velvet-porch/core'
import { useCallback, useEffect, useState } from 'react'
import { versionsInWorker } from '../../workers/benchWorker.ts'

/** Versions of some measures, ordered by effort; the one without changes is how it is now. */
export interface FoundVersions {
  readonly rungs: readonly EffortVersion[]
  readonly range: MeasureRange
  /** Absent where nothing could be arranged. */
  readonly now: EffortVersion | undefined
}

/** Looks for easier and fuller versions of measures; what was found is dropped when the arrangement changes. */
export function useEffortVersions(tune: TuneDoc, doc: ArrangementDoc) {
  const [found, setFound] = useState<FoundVersions>()
  const [looking, setLooking] = useState(false)
  const { base, regions, setup } = doc
  const drop = useCallback(() => setFound(undefined), [])
  useEffect(drop, [drop, tune, base, regions, setup])
  const look = useCallback(
    async (range: MeasureRange) => {
      setLooking(true)
      try {
        const rungs = await versionsInWorker({ tune, setup, regions, locks: base.locks }, range)
        setFound({ rungs, range, now: rungs.find((r) => r.changes.length === 0) })
      } finally {
        setLooking(false)
      }
    },
    [tune, base, regions, setup],
  )
  return { found, looking, look, drop }
}
