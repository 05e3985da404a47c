import type { ArrangementDoc } from './arrangement.ts'
import type { TuneDoc } from './tune.ts'

/** The two documents that stand on the sheet: a tune, and what it is played as. */
export interface Score {
  readonly tune: TuneDoc
  readonly arrangement?: ArrangementDoc
}
