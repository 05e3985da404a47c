import type { ArrangementDoc, MeasureRange, Rung, TuneDoc } from '@velvet-porch/core'
import { useCallback, useEffect, useState } from 'react'
import { ladderInWorker } from '../worker/benchWorker.ts'

/** Versions of some measures, ordered by effort; the one without changes is how it is now. */
export interface FoundLadder {
  readonly rungs: readonly Rung[]
  readonly range: MeasureRange
  /** Absent where nothing could be arranged. */
  readonly now: Rung | undefined
}

/** Looks for easier and fuller versions of measures; what was found is dropped when the arrangement changes. */
export function useLadder(tune: TuneDoc, doc: ArrangementDoc) {
  const [found, setFound] = useState<FoundLadder>()
  const [looking, setLooking] = useState(false)
  const { base, regions, setup } = doc
  const drop = useCallback(() => setFound(undefined), [])
  useEffect(drop, [drop, tune, base, regions, setup])
  const look = useCallback(
    async (range: MeasureRange) => {
      setLooking(true)
      try {
        const rungs = await ladderInWorker({ tune, setup, regions, locks: base.locks }, range)
        setFound({ rungs, range, now: rungs.find((r) => r.changes.length === 0) })
      } finally {
        setLooking(false)
      }
    },
    [tune, base, regions, setup],
  )
  return { found, looking, look, drop }
}
