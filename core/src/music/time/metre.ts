import { WHOLE, type Ticks } from './ticks.ts'

/** A time signature. `display` keeps the sign that the source used for 4/4 or 2/2. */
export interface Metre {
  readonly num: number
  readonly den: number
  readonly display?: 'common' | 'cut'
}

/** Length of one full measure. */
export function measureLength(metre: Metre): Ticks {
  return (WHOLE / metre.den) * metre.num
}

/** True for metres counted in dotted beats: 6/8, 9/8, 12/8 and their like. */
export function isCompound(metre: Metre): boolean {
  return metre.num > 3 && metre.num % 3 === 0 && metre.den >= 8
}

/** Length of the beat that a foot would tap: a dotted unit in compound metres, else the unit. */
export function beatLength(metre: Metre): Ticks {
  const unit = WHOLE / metre.den
  return isCompound(metre) ? unit * 3 : unit
}

/** Starts of all beats of a full measure. */
export function beatStarts(metre: Metre): Ticks[] {
  const beat = beatLength(metre)
  const length = measureLength(metre)
  const starts: Ticks[] = []
  for (let at = 0; at < length; at += beat) starts.push(at)
  return starts
}

/** True where a count falls: on a beat, in compound metres on a third of one. */
export function isCounted(metre: Metre, at: Ticks): boolean {
  return at % (isCompound(metre) ? beatLength(metre) / 3 : beatLength(metre)) === 0
}

/**
 * Ticks that a short measure lacks at its head: it counts from its end, so that a pickup of one beat is the last beat
 * of its measure. One that is cut lacks its tail, and none here.
 */
export function missingHead({ length, nominal, cut = false }: PartMeasure): Ticks {
  return cut ? 0 : Math.max(0, nominal - length)
}

/**
 * Where a moment of a measure stands in its metre: ticks from the start of the full measure. A pickup counts from the end of
 * its own, wherever in the tune it stands.
 * @example inFullMeasure(pickupOfOneBeat, 0) // 3 beats, in 4/4
 */
export const inFullMeasure = (measure: PartMeasure, tick: Ticks): Ticks => tick + missingHead(measure)

interface PartMeasure {
  readonly length: Ticks
  readonly nominal: Ticks
  readonly cut?: boolean
}

/**
 * Starts of the strong beats of a full measure: 1 and 3 of four, both dotted beats of 6/8, 1 of three.
 * Longer odd metres are grouped in twos with a last group of three (5/4: 1 and 3; 7/8: 1, 3 and 5). Common practice.
 * @example strongBeats({ num: 4, den: 4 }) // [0, 20160]
 */
export function strongBeats(metre: Metre): Ticks[] {
  const beats = beatStarts(metre)
  const halfNoteBeats = metre.num === 2 && metre.den === 2
  if (beats.length === 2 && (isCompound(metre) || halfNoteBeats)) return beats
  if (beats.length <= 3) return beats.slice(0, 1)
  const pairsEnd = beats.length % 2 === 0 ? beats.length : beats.length - 3
  return beats.filter((_, i) => i % 2 === 0 && i <= pairsEnd)
}
