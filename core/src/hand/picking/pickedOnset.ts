import type { PickingSchool } from '../../instrument/hand.ts'
import type { Role } from '../../document/tab.ts'
import type { StrokeRule } from '../../document/school.ts'
import type { Metre } from '../../music/time/metre.ts'
import type { Ticks } from '../../music/time/ticks.ts'

/** A note as the picking hand meets it. */
export interface PickedNote {
  readonly string: number
  readonly role: Role
  /** Touched by the index of the picking hand, which then cannot pluck. */
  readonly artificial?: true
}

/** Notes plucked together, with the time since the onset before and the place in the measure. */
export interface PickedOnset {
  readonly notes: readonly PickedNote[]
  readonly seconds: number
  readonly inMeasure: Ticks
  readonly metre: Metre
}

/** A picking hand: its school, the rule of its strokes, the strings under it. */
export interface PickingHand {
  readonly school: PickingSchool
  readonly strokes: StrokeRule
  readonly strings: number
}
