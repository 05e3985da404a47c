import { present } from '@velvet-porch/core/invariant'
import type { EditCommand } from '@velvet-porch/core/edit'
import type { SheetModel } from '../sheet/sheetModel.ts'
import { likelyRole } from '../sheet/cells.ts'
import { lengthAt } from './staffPitch.ts'
import type { Writing } from './useWriting.ts'

/** What a fret typed or clicked on a string means where the pen stands. */
export function fretEdit(
  model: SheetModel,
  { cell, penNow }: Pick<Writing, 'cell' | 'penNow'>,
  string: number,
  fret: number,
): EditCommand {
  const at = { ...present(cell), string }
  const pen = penNow()
  return {
    do: 'fret',
    at: { measure: model.tune.measures[at.measure]!.id, tick: at.tick },
    string,
    fret,
    ticks: lengthAt(model.tune, at, pen.ticks),
    role: pen.role === 'likely' ? likelyRole(model, at) : pen.role,
  }
}
