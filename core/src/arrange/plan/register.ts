import type { MelodyNote } from '../../document/form/timeline.ts'
import type { Region } from '../../document/arrangement.ts'
import { openPitch, rangeOf, type Setup } from '../../instrument/setup.ts'
import { midiOf, type Midi } from '../../music/pitch/pitch.ts'
import { hasBassStrings, MELODY_ON_TOP } from './styleRules.ts'

/** The octave chosen for the whole melody. */
export type Register =
  | { readonly ok: true; readonly transposed: number }
  | { readonly ok: false; readonly measure: number; readonly reason: 'low' | 'high' | 'wide' }

/** Lowest melody pitch (string 3 open) that leaves strings for a bass below it, and highest in easy reach of string 1. */
const COMFORT = { lowAboveOpen4: 5, highAboveOpen1: 5, highAlone: 7, highOnThird: 2 }

/**
 * Where the body of the instrument begins to be in the hand's way, from string 1 open, and how much more a semitone beyond it
 * counts. Common practice, no source.
 */
const BODY = { aboveOpen1: 12, counts: 5 }

/** What sounds the melody. */
type Sounding = Pick<Region, 'style' | 'level'>

/** A tune alone may go down to string 4 of a guitar, and to the lowest string where there are none for a bass. */
function comfortOf(setup: Setup, regions: readonly Sounding[]): { low: Midi; high: Midi } {
  const sings = regions.length > 0 && regions.every((r) => r.style === 'bottleneck')
  // A bottleneck sings on the treble strings, away from the nut.
  if (sings) return { low: openPitch(setup, 1) - 2, high: openPitch(setup, 1) + 12 }
  // Under brushes a tune has the bass strings, and the third.
  const inBass = regions.length > 0 && regions.every((r) => r.style === 'bass-tune')
  if (inBass)
    return {
      low: openPitch(setup, setup.instrument.strings),
      high: openPitch(setup, 3) + COMFORT.highOnThird,
    }
  const overChords = regions.length > 0 && regions.every((r) => MELODY_ON_TOP.has(r.style) && r.level > 1)
  if (overChords && hasBassStrings(setup.instrument))
    return { low: openPitch(setup, 2), high: openPitch(setup, 1) + COMFORT.highAboveOpen1 }
  const alone = regions.length > 0 && regions.every((r) => r.style === 'flatpicked-lead')
  const high = openPitch(setup, 1) + (alone ? COMFORT.highAlone : COMFORT.highAboveOpen1)
  if (!hasBassStrings(setup.instrument)) return { low: openPitch(setup, setup.instrument.strings), high }
  return { low: openPitch(setup, 4) + (alone ? 0 : COMFORT.lowAboveOpen4), high }
}

/** Octaves tried, the source's own first: a tie keeps it. */
const OCTAVES = [0, -1, 1, -2, 2]

/** An octave in which a whole melody lies on an instrument. */
export interface MelodyOctave {
  /** Octaves from the written one, the setup's shift aside. */
  readonly octave: number
  /** Semitones by which the melody is moved in all. */
  readonly transposed: number
  /**
   * Semitones by which its notes lie beyond the comfortable range on average, weighed by their lengths; what lies below
   * counts a little more, as it takes the strings of the bass.
   */
  readonly beyond: number
  /** Semitones by which they lie where the body is in the hand's way, in the same mean. */
  readonly overBody: number
}

/** The octaves in which a whole melody lies on the instrument, the source's own first. */
export function octavesOn(
  melody: readonly MelodyNote[],
  setup: Setup,
  regions: readonly Sounding[] = [],
): MelodyOctave[] {
  const range = rangeOf(setup)
  const comfort = comfortOf(setup, regions)
  const whole = melody.reduce((sum, n) => sum + n.duration, 0)
  const body = openPitch(setup, 1) + BODY.aboveOpen1
  return OCTAVES.flatMap((octave) => {
    const transposed = 12 * octave + (setup.shift ?? 0)
    let beyond = 0
    let overBody = 0
    for (const n of melody) {
      const midi = midiOf(n.pitch) + transposed
      if (midi < range.lowest || midi > range.highest) return []
      const below = Math.max(0, comfort.low - midi)
      const above = Math.max(0, midi - comfort.high)
      const weight = n.duration / whole
      beyond += (below * 1.2 + above) * weight
      overBody += Math.max(0, midi - body) * weight
    }
    return [{ octave, transposed, beyond, overBody }]
  })
}

/** Semitones beyond the comfortable range that nobody minds, for the octave that is written. */
const KEPT_FOR = 1e-6

/** One octave for the whole tune: the one that is asked for, else the one in which the melody lies best. */
export function chooseRegister(
  melody: readonly MelodyNote[],
  setup: Setup,
  regions: readonly Sounding[] = [],
): Register {
  const octaves = octavesOn(melody, setup, regions)
  const cost = (o: MelodyOctave) => o.beyond + o.overBody * BODY.counts + (o.octave === 0 ? 0 : KEPT_FOR)
  const best =
    octaves.find((o) => o.octave === setup.octave) ??
    octaves.reduce<MelodyOctave | undefined>((a, b) => (a && cost(a) <= cost(b) ? a : b), undefined)
  return best ? { ok: true, transposed: best.transposed } : misfit(melody, rangeOf(setup))
}

/** More notes off the instrument than this share are no exceptions: the tune does not fit. No source. */
const MOST_MOVED = 0.1

/** A melody in one octave, but for single notes that the instrument does not have there: they go to the next one. */
export interface FoldedMelody {
  readonly transposed: number
  readonly melody: readonly MelodyNote[]
}

/**
 * The octave in which fewest notes lie off the instrument, these moved by octaves until they are on it; undefined where
 * there would be too many, or none at all.
 */
export function foldOntoInstrument(melody: readonly MelodyNote[], setup: Setup): FoldedMelody | undefined {
  const range = rangeOf(setup)
  let best: { transposed: number; off: number } | undefined
  for (const octave of OCTAVES) {
    const transposed = 12 * octave + (setup.shift ?? 0)
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
