import type { Region } from '../model/arrangement.ts'
import type { TuneDoc } from '../model/tune.ts'
import type { Tuning } from '../neck/instrument.ts'
import { lastFret, withShift, type Setup } from '../neck/setup.ts'
import { mod12 } from '../pitch/pitch.ts'
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
  /** The shift that is wished for: 0 for the tune's own key. */
  readonly wanted: number
  readonly voice?: VoiceRange
}

/** One way to fit it. */
export interface FitChoice {
  readonly tuning: Tuning
  readonly shift: number
  readonly capo: number
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
export function setupWith(setup: Setup, { tuning, shift, capo }: FitChoice): Setup {
  return withShift({ ...setup, tuning, capo: tuning.map(() => capo) }, shift)
}

/** A choice in a few characters. */
export const choiceId = ({ tuning, shift, capo }: FitChoice): string => `${tuning.join('.')} ${shift} ${capo}`

/**
 * Choices that look alike to the hand: one tuning, and shapes in one key behind the capo. Only the millimetres between
 * the frets differ.
 */
export interface FitFamily {
  readonly tuning: Tuning
  readonly choices: readonly FitChoice[]
}

export function familiesOf({ setup, tunings, shifts, capos }: FitQuestion): FitFamily[] {
  const usable = capos.filter((c) => c < lastFret({ ...setup, capo: setup.capo.map(() => 0) }, 1))
  return tunings.flatMap((tuning) => {
    const byKey = new Map<number, FitChoice[]>()
    for (const shift of shifts)
      for (const capo of usable) {
        const key = mod12(shift - capo)
        byKey.set(key, [...(byKey.get(key) ?? []), { tuning, shift, capo }])
      }
    return [...byKey.values()].map((choices) => ({ tuning, choices }))
  })
}
