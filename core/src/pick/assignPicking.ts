import type { PickingSchool, PickingSign } from '../neck/hand.ts'
import type { Role } from '../model/arrangement.ts'
import type { StrokeRule } from '../model/school.ts'
import type { Metre } from '../time/metre.ts'
import type { Ticks } from '../time/ticks.ts'
import { assignFingers } from './assignFingers.ts'
import { assignStrokes } from './assignStrokes.ts'

/** A note as the picking hand meets it. */
export interface PickedNote {
  readonly string: number
  readonly role: Role
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

/** How each note is sounded, onset by onset, in the order of the notes. */
export function assignPicking(onsets: readonly PickedOnset[], hand: PickingHand): PickingSign[][] {
  if (hand.school === 'flatPick') return assignStrokes(onsets, hand.strokes)
  const fingers = assignFingers(onsets, hand)
  if (hand.school !== 'pickAndFingers') return fingers
  // The pick takes the thumb's part; the index holds it.
  return fingers.map((signs) => signs.map((f) => (f === 'p' ? 'down' : f)))
}
