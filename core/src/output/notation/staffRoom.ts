import type { Measure } from '../../document/tune.ts'
import { staffLine, type StaffMeasure, type StaffSign } from './staff.ts'

/** How far notes stand out of the five lines of a staff. */
export interface StaffReach {
  /** From the top line up to the highest note, in gaps between lines. */
  readonly above: number
  /** From the bottom line down to the lowest one, in the same. */
  readonly below: number
  /** True where some measure has a second voice, so that stems point both ways. */
  readonly twoVoices: boolean
}

const TOP_LINE = staffLine({ step: 'F', alter: 0, octave: 5 })
const BOTTOM_LINE = staffLine({ step: 'E', alter: 0, octave: 4 })

/** The room that the notes of a staff under a treble clef need above and below its lines; stems are not counted. */
export function staffReach(staff: readonly StaffMeasure[]): StaffReach {
  const heights = (voice: 'upper' | 'lower') =>
    staff.flatMap((m) => m[voice].flatMap((s) => s.heads.map((h) => staffLine(h.pitch))))
  const [upper, lower] = [heights('upper'), heights('lower')]
  const all = [...upper, ...lower]
  const highest = all.reduce((a, b) => Math.max(a, b), TOP_LINE)
  const lowest = all.reduce((a, b) => Math.min(a, b), BOTTOM_LINE)
  return {
    above: (highest - TOP_LINE) / 2,
    below: (BOTTOM_LINE - lowest) / 2,
    twoVoices: lower.length > 0,
  }
}

/** Accidentals that stand side by side before the notes of a measure's first moment: there is no room for more than three. */
export const accidentalsAtHead = (signs: readonly StaffSign[]): number =>
  Math.min(
    3,
    signs.flatMap((s) => (s.tick === 0 ? s.heads.filter((h) => h.accidental !== undefined) : [])).length,
  )

/**
 * Room for clef and key at the head of a system.
 * @param fifths sharps of the key, flats below zero
 * @param lineGap px from line to line
 */
export const headWidth = (fifths: number, lineGap: number): number =>
  ((38 + Math.abs(fifths) * 9) * lineGap) / 8

/** True where a metre is written: where it begins or changes. */
export const isNewMetre = (m: Measure, before: Measure | undefined): boolean =>
  before === undefined || before.metre.num !== m.metre.num || before.metre.den !== m.metre.den
