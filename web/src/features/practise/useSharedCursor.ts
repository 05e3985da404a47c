import { useCallback, useRef } from 'react'
import type { SheetPosition } from '../../score/sheet/sheetModel.ts'

type Move = (position: SheetPosition | undefined) => void

/** The cursor of a sheet, moved by the player and by whoever follows something else. */
export function useSharedCursor(players: (move: Move) => void) {
  const own = useRef<Move>(undefined)
  const cursor = useCallback(
    (move: Move) => {
      own.current = move
      players(move)
    },
    [players],
  )
  const follow = useCallback<Move>((position) => own.current?.(position), [])
  return { cursor, follow }
}
