import type { Stroke } from '../../instrument/hand.ts'
import type { StrokeRule } from '../../document/school.ts'
import { beatLength, isCompound } from '../../music/time/metre.ts'
import type { PickedOnset } from './pickedOnset.ts'

/**
 * Strokes of a flat pick. By the beat: down on the pulse that the pick hand keeps, up between (eighths in simple
 * metres; down-up-down down-up-down in jigs, as the hand falls on every dotted beat). In strict turn: down and up
 * whatever the beat and whatever rests. Notes struck together are one stroke.
 */
export function assignStrokes(onsets: readonly PickedOnset[], rule: StrokeRule): Stroke[][] {
  let last: Stroke = 'up'
  return onsets.map((onset) => {
    const stroke = rule === 'byBeat' ? strokeByBeat(onset) : last === 'down' ? 'up' : 'down'
    last = stroke
    return onset.notes.map(() => stroke)
  })
}

function strokeByBeat({ inMeasure, metre }: PickedOnset): Stroke {
  const beat = beatLength(metre)
  const inBeat = inMeasure % beat
  if (isCompound(metre)) {
    const third = beat / 3
    const nth = Math.floor(inBeat / third)
    return inBeat % third === 0 ? (nth === 1 ? 'up' : 'down') : 'up'
  }
  const pulse = metre.den <= 4 ? beat / 2 : beat
  if (inBeat === 0) return 'down'
  // Between two pulses the hand comes back up; sixteenths turn within each half beat.
  const within = inBeat % pulse
  if (within !== 0) return within === pulse / 2 ? 'up' : 'down'
  return inBeat === pulse ? (metre.den <= 4 ? 'up' : 'down') : 'down'
}
