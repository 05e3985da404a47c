import { useEffect, useState } from 'react'
import { handAt } from '../../score/neck/handMove.ts'
import { player } from '../../score/playback/player.ts'
import { writtenSpot } from '../../score/playback/usePlaying.ts'
import type { SheetModel, SheetPosition } from '../../score/sheet/sheetModel.ts'

/** What the hand holds where the music is, at rest where it begins; the neck changes with the grips, not with every frame. */
export function useHandAtCursor(model: SheetModel, from: SheetPosition | undefined) {
  const [at, setAt] = useState<SheetPosition>()
  useEffect(
    () =>
      player.follow((tick) => {
        const spot = tick === undefined ? undefined : writtenSpot(model, tick)
        setAt((before) => {
          if (!spot) return undefined
          const step = { ...spot, tick: Math.floor(spot.tick / STEP) * STEP }
          return before?.measure === step.measure && before.tick === step.tick ? before : step
        })
      }),
    [model],
  )
  const spot = at ?? from
  return spot && handAt(model, spot)
}

/** The neck is looked at anew every sixteenth. */
const STEP = 2520
