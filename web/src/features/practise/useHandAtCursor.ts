import { useEffect, useState } from 'react'
import { handAt } from '../../score/neck/handMove.ts'
import { player } from '../../score/playback/player.ts'
import type { SheetModel, SheetPosition } from '../../score/sheet/sheetModel.ts'

/** What the hand holds where the music is, at rest where it begins; the neck changes with the grips, not with every frame. */
export function useHandAtCursor(model: SheetModel, from: SheetPosition | undefined) {
  const [at, setAt] = useState<SheetPosition>()
  useEffect(
    () =>
      player.follow((tick) => {
        const { order } = model.unfolded
        const own = tick === undefined ? undefined : order.findLast((o) => o.startTick <= tick)
        const beat = own && tick !== undefined ? Math.floor((tick - own.startTick) / STEP) * STEP : 0
        setAt((before) =>
          !own
            ? undefined
            : before?.measure === own.measure && before.tick === beat
              ? before
              : { measure: own.measure, tick: beat },
        )
      }),
    [model],
  )
  const spot = at ?? from
  return spot && handAt(model, spot)
}

/** The neck is looked at anew every sixteenth. */
const STEP = 2520
