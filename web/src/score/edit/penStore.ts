import { WHOLE, type Ticks } from '@velvet-porch/core/music'
import type { Role } from '@velvet-porch/core/document'
import type { Choosing, EditCommand, EditRefusal } from '@velvet-porch/core/edit'
import { createStore, type StoreApi } from 'zustand'
import type { Cell } from '../sheet/cells.ts'

/** What the pen writes: a length, and for the tab the role of new notes. */
export interface Pen {
  readonly ticks: Ticks
  readonly role: Role | 'likely'
}

export interface Refused extends EditRefusal {
  readonly edit: EditCommand
}

/** Writing by hand: whether it is on, the pen and where it stands, what the note tools change, what was refused. */
export interface PenState {
  readonly on: boolean
  readonly pen: Pen
  readonly cell: Cell | undefined
  /** What the note tools change; undefined: the note under the cursor. */
  readonly choosing: Choosing | undefined
  readonly refused: Refused | undefined
}

/** The state of writing on one page. It is read outside React, too: who types fast is ahead of what is drawn. */
export const createPen = (on: boolean, cell?: Cell): StoreApi<PenState> =>
  createStore<PenState>(() => ({
    on,
    pen: { ticks: WHOLE / 4, role: 'likely' },
    cell,
    choosing: undefined,
    refused: undefined,
  }))
