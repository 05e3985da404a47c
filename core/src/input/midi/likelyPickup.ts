import type { Key } from '../../music/pitch/key.ts'
import { QUARTER, type Ticks } from '../../music/time/ticks.ts'
import { heardChord } from '../chordsHeard.ts'
import type { RecordedNote } from './midiVoices.ts'

/** Pickups are whole numbers of eighths. */
export const PICKUP_STEP: Ticks = QUARTER / 2

/** By how much bar lines elsewhere must fit better than those that the file counts, as a share. No source. */
const CLEARLY = 0.06
/** What a whole measure of pickup takes off: most are short. No source. */
const LONG = 0.06
/** A rest of so much of the first measure is a pickup that the file counts. */
const LEAST_REST = 0.5
/** Measures that tell enough. */
const HEARD_MEASURES = 48

/**
 * Ticks before the first bar line. A file that begins with a long rest in its first measure has counted its pickup; one that begins at once
 * may have bar lines that no player hears: they lie where the measures spell chords best.
 * @param notes all notes of the file, in order of time
 * @param from ticks of the file at which the first note begins
 */
export function likelyPickup(notes: readonly RecordedNote[], from: Ticks, measure: Ticks, key: Key): Ticks {
  const rest = from % measure
  if (rest >= LEAST_REST * measure) return measure - rest
  if (rest > 0) return 0
  const end = Math.max(...notes.map((n) => n.to))
  const fitWith = (pickup: Ticks): number => {
    let [fit, count] = [0, 0]
    for (let at = from + pickup; at + measure <= end && count < HEARD_MEASURES; at += measure) {
      const own = notes.filter((n) => n.from < at + measure && n.to > at)
      fit += heardChord(own, at, at + measure, key)?.fit ?? 0
      count++
    }
    return count === 0 ? 0 : fit / count
  }
  let best = { pickup: 0, fit: fitWith(0) + CLEARLY }
  for (let pickup = PICKUP_STEP; pickup < measure; pickup += PICKUP_STEP) {
    const fit = fitWith(pickup) - LONG * (pickup / measure)
    if (fit > best.fit) best = { pickup, fit }
  }
  return best.pickup
}
