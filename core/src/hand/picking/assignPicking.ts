import type { PickingSign } from '../../instrument/hand.ts'
import { finish, type Turns } from '../../turns.ts'
import { assigningFingers } from './assignFingers.ts'
import { assignStrokes } from './assignStrokes.ts'
import type { PickedOnset, PickingHand } from './pickedOnset.ts'

/** How each note is sounded, all at once. */
export const assignPicking = (onsets: readonly PickedOnset[], hand: PickingHand): PickingSign[][] =>
  finish(assigningPicking(onsets, hand))

/** How each note is sounded, onset by onset, in the order of the notes. */
export function* assigningPicking(onsets: readonly PickedOnset[], hand: PickingHand): Turns<PickingSign[][]> {
  if (hand.school === 'flatPick') return assignStrokes(onsets, hand.strokes)
  const fingers = yield* assigningFingers(onsets, hand)
  if (hand.school !== 'pickAndFingers') return fingers
  // The pick takes the thumb's part; the index holds it.
  return fingers.map((signs) => signs.map((f) => (f === 'p' ? 'down' : f)))
}
