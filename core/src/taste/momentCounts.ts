import { TASTE_FEATURES, type TasteFeature, type TastePrices } from '../document/taste.ts'
import type { Ticks } from '../music/time/ticks.ts'
import { ticksAt, type Timeline } from '../document/form/timeline.ts'
import type { Role, TabNote } from '../document/tab.ts'

/** A note that is struck, as taste looks at it. */
export interface StruckNote {
  readonly role: Role
  readonly string: number
  readonly fret: number
  /** 1 to 4; 0 for none, 5 for the thumb over the neck. */
  readonly finger: number
  readonly harmonic: boolean
}

/** How often each feature occurs, in the order of `TASTE_FEATURES`. */
export type TasteCounts = readonly number[]

/** Frets within which a hand is at home, and that it spans with ease. */
const HOME_FRET = 4
const EASY_SPAN = 3
/** A note further up counts no more than one so many frets beyond. */
const MOST_BEYOND = 8
const LITTLE = 4
const THUMB = 5
/** The strings on which a melody is heard best. */
const TOP_STRINGS = 2

const AT = Object.fromEntries(TASTE_FEATURES.map((f, i) => [f, i])) as Readonly<Record<TasteFeature, number>>

export const noCounts = (): number[] => TASTE_FEATURES.map(() => 0)

const beyond = (fret: number) => Math.min(MOST_BEYOND, Math.max(0, fret - HOME_FRET))

/**
 * Adds the features of what is struck at one moment.
 * @param strings of the instrument
 */
export function countMoment(struck: readonly StruckNote[], strings: number, out: number[]): void {
  let [low, high] = [Infinity, 0]
  let chord = 0
  for (const { role, string, fret, finger, harmonic } of struck) {
    if (fret === 0) out[AT.open]!++
    else if (!harmonic) {
      low = Math.min(low, fret)
      high = Math.max(high, fret)
    }
    if (finger === LITTLE) out[AT.little]!++
    if (finger === THUMB) out[AT.thumb]!++
    if (role === 'bass') {
      out[AT.bassHigh]! += beyond(fret)
      if (string >= strings - 1) out[AT.bassLow]!++
    } else if (role === 'fill') out[AT.fill]!++
    else if (role === 'melody' && string > TOP_STRINGS) out[AT.inside]!++
    if (role === 'harmony' || role === 'melody') chord++
  }
  out[AT.high]! += beyond(high)
  if (high > 0) out[AT.spread]! += Math.max(0, high - low - EASY_SPAN)
  if (chord > 2) out[AT.voices]! += chord - 2
}

/** The features of some notes of a finished tab. */
export function countsOf(notes: readonly TabNote[], timeline: Timeline, strings: number): TasteCounts {
  const moments = new Map<Ticks, StruckNote[]>()
  for (const n of notes) {
    const at = ticksAt(timeline, n.pos)
    const own = moments.get(at) ?? []
    own.push({
      role: n.role,
      string: n.place.string,
      fret: n.place.fret,
      finger: n.left === 'T' ? THUMB : n.left,
      harmonic: n.place.harmonic !== undefined || n.place.artificial === true,
    })
    moments.set(at, own)
  }
  const out = noCounts()
  for (const struck of moments.values()) countMoment(struck, strings, out)
  return out
}

/** What counts cost at some prices. */
export const priceOfCounts = (counts: TasteCounts, prices: TastePrices): number =>
  TASTE_FEATURES.reduce((sum, f, i) => sum + (prices[f] ?? 0) * counts[i]!, 0)
