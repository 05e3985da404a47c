import type { ArrangementDoc, TuneDoc } from '@velvet-porch/core/document'
import type { SheetModel, SheetPosition } from '../../score/sheet/sheetModel.ts'

/** An arrangement that stands, and the way to a place on its sheet. */
export interface ArrangedProps {
  readonly tune: TuneDoc
  readonly doc: ArrangementDoc
  readonly model: SheetModel
  readonly onPosition: (position: SheetPosition) => void
}
