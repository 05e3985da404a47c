import { headWidth as roomAtHead, staffReach, type StaffMeasure } from '@velvet-porch/core/output'

/** The staff is drawn at this scale of the notation font, whose lines are 10 px apart. */
export const STAFF_SCALE = 0.8
const LINE_GAP = 10 * STAFF_SCALE
export const STAFF_HEIGHT = 4 * LINE_GAP
const STEM = 3.5 * LINE_GAP
export const TAB_GAP = 13

/** Room of a chord box over a chord name, and its width. */
export const BOX_HEIGHT = 62
export const BOX_WIDTH = 62

/** From verse to verse. */
export const LYRIC_GAP = 16

/** Vertical places of every system of a sheet, in CSS pixels. Horizontal places come from the layout contract alone. */
export interface Rows {
  /** Section names and ending brackets; 0 where there are none. */
  readonly top: number
  /** Base line of chord names. */
  readonly chords: number
  readonly staffTop: number
  /** Base line of the first verse; further verses stand `LYRIC_GAP` below. */
  readonly lyrics: number
  readonly tabTop: number
  readonly tabBottom: number
  /** Base line of the picking hand's upper row. */
  readonly picking: number
  /** Base line of the names of intervals. */
  readonly intervals: number
  /** Base line of the degrees over the chords, right under the staff or the words. */
  readonly degrees: number
  /** Base line of the count. */
  readonly counts: number
  /** Base line of the numbers of plucked strings. */
  readonly stringNumbers: number
  /** Base line of words to the student. */
  readonly remarks: number
  readonly height: number
}

/** Makes room for the highest and lowest note of the sheet, and no more. */
export function systemRows(
  staff: readonly StaffMeasure[],
  options: {
    marksAbove: boolean
    strings: number
    picking: boolean
    intervals: boolean
    verses: number
    counts: boolean
    degrees: boolean
    stringNumbers: boolean
    /** Chord boxes over the chord names. */
    boxes?: boolean
    /** Words to the student. */
    remarks?: boolean
    /** Signs over the tab: let ring, palm, accents. */
    signs: boolean
  },
): Rows {
  const reach = staffReach(staff)
  const above = reach.above * LINE_GAP + (reach.twoVoices ? STEM : 4)
  const below = reach.below * LINE_GAP + (reach.twoVoices ? STEM : 6)
  const top = options.marksAbove ? 18 : 0
  const chords = top + 16 + (options.boxes ? BOX_HEIGHT : 0)
  const staffTop = Math.round(chords + 8 + Math.max(12, above))
  const staffBottom = staffTop + STAFF_HEIGHT
  const words = options.verses * LYRIC_GAP + (options.degrees ? 16 : 0) + (options.signs ? 10 : 0)
  const tabTop = Math.round(staffBottom + Math.max(18, below) + 10 + words)
  const tabBottom =
    options.strings > 0 ? tabTop + (options.strings - 1) * TAB_GAP : staffBottom + Math.max(6, below) + words
  const named = options.intervals ? 14 : 0
  const counted = options.counts ? 15 : 0
  const numbered = options.stringNumbers ? 15 : 0
  return {
    top,
    chords,
    staffTop,
    tabTop,
    tabBottom,
    intervals: tabBottom + 15,
    counts: tabBottom + 16 + named,
    stringNumbers: tabBottom + 16 + named + counted,
    degrees: Math.round(staffBottom + Math.max(10, below) + 13 + options.verses * LYRIC_GAP),
    lyrics: Math.round(staffBottom + Math.max(10, below) + 13),
    picking: tabBottom + 17 + named + counted + numbered,
    remarks: tabBottom + (options.picking ? 46 : 18) + named + counted + numbered,
    height: Math.round(
      tabBottom + (options.picking ? 44 : 24) + named + counted + numbered + (options.remarks ? 30 : 0),
    ),
  }
}

/** Room for clef and key at the head of a system. */
export const headWidth = (fifths: number): number => roomAtHead(fifths, LINE_GAP)

/** Height of a string of the tab. */
export const tabY = (rows: Rows, string: number) => rows.tabTop + (string - 1) * TAB_GAP
