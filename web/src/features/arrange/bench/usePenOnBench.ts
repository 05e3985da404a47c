import { hertz } from '@velvet-porch/core/music'
import { pitchAt } from '@velvet-porch/core/instrument'
import { useCallback, useEffect, useMemo, useRef } from 'react'
import { fretEdit } from '../../../score/edit/fretEdit.ts'
import type { Writing } from '../../../score/edit/useWriting.ts'
import { player } from '../../../score/playback/player.ts'
import type { Cell } from '../../../score/sheet/cells.ts'
import type { SheetModel } from '../../../score/sheet/sheetModel.ts'
import type { BenchStore } from './benchStore.ts'

/** The pen on the sheet of the bench: where it stands, and what a place on the standing neck does. */
export function usePenOnBench(
  store: BenchStore,
  writing: Writing,
  mayWrite: boolean,
  model: SheetModel | undefined,
) {
  const { setCell } = writing
  const pen = writing.on && mayWrite ? writing : undefined
  const onCell = useCallback(
    (cell: Cell) => {
      setCell(cell)
      store.setState({ position: { measure: cell.measure, tick: cell.tick } })
    },
    [setCell, store],
  )
  const cell = pen?.cell
  const step = pen?.pen.ticks
  const onSheet = useMemo(
    () => (step === undefined ? undefined : { cell, onCell, step }),
    [cell, onCell, step],
  )
  const penRef = useRef(pen)
  useEffect(() => {
    penRef.current = pen
  })
  const hear = useCallback(
    (string: number, fret: number) => {
      if (!model?.setup) return
      void player.pluck(string, hertz(pitchAt(model.setup, { string, fret })))
      // While writing, a place on the neck is written where the pen stands, ahead of what is drawn beside the sheet.
      const now = penRef.current
      const at = now?.cellNow()
      if (!now || !at) return
      now.setCell({ ...at, string })
      void now.run(fretEdit(model, { ...now, cell: at }, string, fret))
    },
    [model],
  )
  return { pen, cell, onSheet, hear }
}
