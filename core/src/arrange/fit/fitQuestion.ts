import { timelineOf } from '../../document/form/timeline.ts'
import type { Region } from '../../document/arrangement.ts'
import type { TuneDoc } from '../../document/tune.ts'
import type { Tuning } from '../../instrument/instrument.ts'
import { lastFret, withShift, type Setup } from '../../instrument/setup.ts'
import { playedMelody } from '../plan/playedMelody.ts'
import { mod12 } from '../../music/pitch/pitch.ts'
import { octavesOn } from '../plan/register.ts'
import type { VoiceRange } from './voice.ts'

/** What is asked: a tune, who plays it on what, and what may be chosen. */
export interface FitQuestion {
  readonly tune: TuneDoc
  readonly regions: readonly Region[]
  /** Instrument and player, and the tuning at hand. */
  readonly setup: Setup
  readonly tunings: readonly Tuning[]
  /** Semitones from the tune's own key that are allowed. */
  readonly shifts: readonly number[]
  readonly capos: readonly number[]
  /** The shift that is wanted: 0 for the tune's own key. */
  readonly wanted: number
  readonly voice?: VoiceRange
}

/** One way to fit it. */
export interface FitChoice {
  readonly tuning: Tuning
  readonly shift: number
  readonly capo: number
  /** Octaves from the written one; absent where none lies whole on the instrument, or the tune is sung. */
  readonly octave?: number
}

/** What allows nothing. */
export type FitGap = 'tunings' | 'shifts' | 'capos'

/** The condition that leaves no choice; undefined where there is one. */
export function gapOf({ tunings, shifts, capos }: FitQuestion): FitGap | undefined {
  if (tunings.length === 0) return 'tunings'
  if (shifts.length === 0) return 'shifts'
  return capos.length === 0 ? 'capos' : undefined
}

/** The setup of a choice. */
export function setupWith(setup: Setup, { tuning, shift, capo, octave }: FitChoice): Setup {
  return withShift({ ...setup, tuning, capo: tuning.map(() => capo) }, shift, octave)
}

/** A choice in a few characters. */
export const choiceId = ({ tuning, shift, capo, octave }: FitChoice): string =>
  [tuning.join('.'), shift, capo, ...(octave === undefined ? [] : [octave])].join(' ')

/**
 * Choices that look alike to the hand: one tuning, and the melody at one height behind the capo. Only the millimetres
 * between the frets differ.
 */
export interface FitFamily {
  readonly tuning: Tuning
  readonly choices: readonly FitChoice[]
}

/**
 * Semitones by which a melody may lie beyond the comfortable range on average: farther down it takes all strings of the
 * bass, farther up it leaves the frets that the hand reaches. No source.
 */
const MOST_BEYOND = 4

/** Every tuning with every key, capo and octave that fits, in families. */
export function familiesOf({ tune, regions, setup, tunings, shifts, capos }: FitQuestion): FitFamily[] {
  const usable = capos.filter((c) => c < lastFret({ ...setup, capo: setup.capo.map(() => 0) }, 1))
  const { notes, solo } = playedMelody(tune, timelineOf(tune.measures), regions)
  const octavesOf = (choice: FitChoice): readonly (number | undefined)[] => {
    if (notes.length === 0) return [undefined]
    const all = octavesOn(notes, setupWith(setup, choice), solo)
    const least = Math.min(...all.map((o) => o.beyond))
    const near = all.filter((o) => o.beyond <= MOST_BEYOND || o.beyond === least)
    return near.length > 0 ? near.map((o) => o.octave) : [undefined]
  }
  return tunings.flatMap((tuning) => {
    const byHeight = new Map<string, FitChoice[]>()
    for (const shift of shifts)
      for (const capo of usable)
        for (const octave of octavesOf({ tuning, shift, capo })) {
          const height = octave === undefined ? `any ${mod12(shift - capo)}` : `${shift + 12 * octave - capo}`
          const choice = { tuning, shift, capo, ...(octave === undefined ? {} : { octave }) }
          byHeight.set(height, [...(byHeight.get(height) ?? []), choice])
        }
    return [...byHeight.values()].map((choices) => ({ tuning, choices }))
  })
}
