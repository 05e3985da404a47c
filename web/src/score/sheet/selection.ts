import type { Ticks } from '@velvet-porch/core/music'
import type { Cell } from './cells.ts'
import type { SheetPosition } from './sheetModel.ts'

/** Measures that are marked, by their indexes; both are part of it. */
export interface MarkedMeasures {
  readonly from: number
  readonly to: number
}

/** What is chosen on a sheet, and who hears of another choice; without `onPosition` the sheet is only looked at. */
export interface SheetSelection {
  readonly position?: SheetPosition | undefined
  readonly onPosition?: ((position: SheetPosition) => void) | undefined
  readonly marked?: MarkedMeasures | undefined
  readonly onMark?: ((marked: MarkedMeasures | undefined) => void) | undefined
}

/** How the page is laid out; it must keep its identity while it stays the same. */
export interface SheetView {
  readonly printing?: boolean
  /** Measures a line; 0: as they fit. */
  readonly perLine?: number
  /** One line that runs on, instead of lines on a page. */
  readonly runsOn?: boolean
  /** Size of the sheet; 1 is as designed. */
  readonly zoom?: number
}

/** Where the pen stands and how it walks; string 0 is the staff. */
export interface SheetWriting {
  readonly cell: Cell | undefined
  readonly onCell: (cell: Cell, stepsBelow?: number) => void
  /** The pen's value: it walks and clicks in such steps. */
  readonly step: Ticks
}
