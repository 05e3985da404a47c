import { knownIn } from '@velvet-porch/core/invariant'
import {
  midiOf,
  signatureAlter,
  STEPS,
  type Key,
  type Pitch,
  type Step,
  type Ticks,
} from '@velvet-porch/core/music'
import type { TuneDoc, TuneEvent } from '@velvet-porch/core/document'
import type { SheetPosition } from '../sheet/sheetModel.ts'

const diatonic = ({ step, octave }: Pitch) => octave * 7 + STEPS.indexOf(step)
/** F on the top line of the staff. */
const TOP_LINE = diatonic({ step: 'F', alter: 0, octave: 5 })
const MIDDLE_LINE: Pitch = { step: 'B', alter: 0, octave: 4 }

/** A staff place with the accidental that the key gives it. */
function inKey(place: number, key: Key): Pitch {
  const step = STEPS[((place % 7) + 7) % 7]!
  return { step, alter: signatureAlter(key.fifths, step), octave: Math.floor(place / 7) }
}

/** The note of a letter that lies nearest to another note. @example A near C5 is A4 */
export function letterNear(step: Step, near: Pitch | undefined, key: Key): Pitch {
  const from = diatonic(near ?? MIDDLE_LINE)
  const place = STEPS.indexOf(step)
  const octave = Math.round((from - place) / 7)
  return inKey(octave * 7 + place, key)
}

/** The note on a line or space, counted in steps below the top line. */
export const pitchAtHeight = (stepsBelow: number, key: Key): Pitch => inKey(TOP_LINE - stepsBelow, key)

/** A note so many staff steps higher, in the key. */
export const bySteps = (pitch: Pitch, steps: number, key: Key): Pitch => inKey(diatonic(pitch) + steps, key)

/** A note half a step higher or lower: the sign changes, or the next note of the key takes over where signs run out. */
export function byHalf(pitch: Pitch, by: 1 | -1, key: Key): Pitch {
  const alter = pitch.alter + by
  if (Math.abs(alter) <= 1) return { ...pitch, alter }
  const next = bySteps(pitch, by, key)
  return { ...next, alter: next.alter + (midiOf(pitch) + by - midiOf(next)) }
}

/** The note or rest of the melody that begins at a spot. */
export function eventAt(tune: TuneDoc, position: SheetPosition): TuneEvent | undefined {
  const { id } = tune.measures[position.measure] ?? {}
  return tune.events.find((e) => e.voice === 0 && e.pos.measure === id && e.pos.tick === position.tick)
}

/** The length that is written at a spot: the pen's, or in a triplet the triplet's. */
export function lengthAt(tune: TuneDoc, position: SheetPosition, pen: Ticks): Ticks {
  const own = eventAt(tune, position)
  return own?.dur.tupletId === undefined ? pen : own.dur.ticks
}

/** The last note of the melody before a spot. */
export function pitchBefore(tune: TuneDoc, position: SheetPosition): Pitch | undefined {
  const indexOf = new Map(tune.measures.map((m, i) => [m.id, i]))
  const earlier = (e: TuneEvent) => {
    const m = knownIn(indexOf, e.pos.measure)
    return m < position.measure || (m === position.measure && e.pos.tick < position.tick)
  }
  return tune.events.findLast((e) => e.voice === 0 && e.pitch && earlier(e))?.pitch
}
