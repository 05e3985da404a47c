import type { MelodyNote } from '../form/timeline.ts'
import type { Region } from '../model/arrangement.ts'
import { openPitch, rangeOf, type Setup } from '../neck/setup.ts'
import { midiOf, type Midi } from '../pitch/pitch.ts'
import { QUARTER } from '../time/ticks.ts'
import { hasBassStrings } from './styleRules.ts'

/** The octave chosen for the whole melody. */
export type Register =
  | { readonly ok: true; readonly transposed: number }
  | { readonly ok: false; readonly measure: number; readonly reason: 'low' | 'high' | 'wide' }

/** Lowest melody pitch (string 3 open) that leaves strings for a bass below it, and highest in easy reach of string 1. */
const COMFORT = { lowAboveOpen4: 5, highAboveOpen1: 5, highAlone: 7 }

/** A tune alone may go down to string 4 of a guitar, and to the lowest string where there are none for a bass. */
function comfortOf(setup: Setup, regions: readonly Pick<Region, 'style'>[]): { low: Midi; high: Midi } {
  const sings = regions.length > 0 && regions.every((r) => r.style === 'bottleneck')
  // A bottleneck sings on the treble strings, away from the nut.
  if (sings) return { low: openPitch(setup, 1) - 2, high: openPitch(setup, 1) + 12 }
  const alone = regions.length > 0 && regions.every((r) => r.style === 'flatpicked-lead')
  const high = openPitch(setup, 1) + (alone ? COMFORT.highAlone : COMFORT.highAboveOpen1)
  if (!hasBassStrings(setup.instrument)) return { low: openPitch(setup, setup.instrument.strings), high }
  return { low: openPitch(setup, 4) + (alone ? 0 : COMFORT.lowAboveOpen4), high }
}

/** Octaves tried, the source's own first: a tie keeps it. */
const OCTAVES = [0, -12, 12, -24, 24]

/** What the source may be moved by on a setup: its shift, in any octave. */
const movesOf = ({ shift = 0 }: Setup): number[] => OCTAVES.map((octave) => octave + shift)

/**
 * One octave for the whole tune: the one in which the melody lies best on the treble strings, weighing each note's
 * distance from the comfortable range by its length.
 */
export function chooseRegister(
  melody: readonly MelodyNote[],
  setup: Setup,
  regions: readonly Pick<Region, 'style'>[] = [],
): Register {
  const range = rangeOf(setup)
  const comfort = comfortOf(setup, regions)
  let best: { transposed: number; cost: number } | undefined
  for (const transposed of movesOf(setup)) {
    const fits = melody.every((n) => {
      const midi = midiOf(n.pitch) + transposed
      return midi >= range.lowest && midi <= range.highest
    })
    if (!fits) continue
    let cost = transposed === (setup.shift ?? 0) ? 0 : 0.001
    for (const n of melody) {
      const midi = midiOf(n.pitch) + transposed
      const below = Math.max(0, comfort.low - midi)
      const above = Math.max(0, midi - comfort.high)
      cost += (below * 1.2 + above) * (n.duration / QUARTER)
    }
    if (!best || cost < best.cost) best = { transposed, cost }
  }
  if (best) return { ok: true, transposed: best.transposed }
  return misfit(melody, range)
}

/** More notes off the instrument than this share are no exceptions: the tune does not fit. No source. */
const MOST_MOVED = 0.1

/** A melody in one octave, but for single notes that the instrument does not have there: they go to the next one. */
export interface Folded {
  readonly transposed: number
  readonly melody: readonly MelodyNote[]
}

/**
 * The octave in which fewest notes lie off the instrument, these moved by octaves until they are on it; undefined where
 * there would be too many, or none at all.
 */
export function foldOntoInstrument(melody: readonly MelodyNote[], setup: Setup): Folded | undefined {
  const range = rangeOf(setup)
  let best: { transposed: number; off: number } | undefined
  for (const transposed of movesOf(setup)) {
    const off = melody.filter((n) => {
      const midi = midiOf(n.pitch) + transposed
      return midi < range.lowest || midi > range.highest
    }).length
    if (!best || off < best.off) best = { transposed, off }
  }
  if (!best || best.off === 0 || best.off > MOST_MOVED * melody.length) return undefined
  const { transposed } = best
  return {
    transposed,
    melody: melody.map((n) => {
      let moved = 0
      while (midiOf(n.pitch) + transposed + moved < range.lowest) moved += 12
      while (midiOf(n.pitch) + transposed + moved > range.highest) moved -= 12
      return moved === 0 ? n : { ...n, moved }
    }),
  }
}

/** Names the measure that keeps the melody off the instrument: the note farthest from the tune's middle. */
function misfit(melody: readonly MelodyNote[], range: { lowest: number; highest: number }): Register {
  const pitches = melody.map((n) => midiOf(n.pitch))
  const low = Math.min(...pitches)
  const high = Math.max(...pitches)
  const sorted = [...pitches].sort((a, b) => a - b)
  const median = sorted[sorted.length >> 1]!
  const wide = high - low > range.highest - range.lowest
  const culprit = high - median >= median - low ? high : low
  const note = melody[pitches.indexOf(culprit)]!
  return { ok: false, measure: note.measure, reason: wide ? 'wide' : culprit === high ? 'high' : 'low' }
}
