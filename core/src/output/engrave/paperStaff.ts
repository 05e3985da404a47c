import type { ArrangementDoc } from '../../document/arrangement.ts'
import type { TuneDoc } from '../../document/tune.ts'
import type { SystemLayout } from '../layout/systems.ts'
import { octaveAbove, staffOf, type StaffMeasure } from '../notation/staff.ts'
import { accidentalsAtHead, headWidth, isNewMetre, staffReach } from '../notation/staffRoom.ts'
import type { Ticks } from '../../music/time/ticks.ts'

/** Where and how the staff of one printed system is drawn. */
export interface StaffPlace {
  /** With measures by their index in the tune. */
  readonly system: SystemLayout
  readonly width: number
  readonly height: number
  /** Height of the top line, in px. */
  readonly top: number
  /** Size of the music: 1 where lines are 10 px apart. */
  readonly scale: number
  /** An 8 under the clef: written an octave above what sounds. */
  readonly octaveClef: boolean
}

/** Draws a staff as SVG. Notation needs a page to draw on, so whoever has one gives this. */
export type DrawStaff = (tune: TuneDoc, staff: readonly StaffMeasure[], place: StaffPlace) => string

/** Lines of a printed staff are 6.6 px (1.75 mm) apart, the usual size of printed music (common practice, no source). */
const SCALE = 0.66
const LINE_GAP = 10 * SCALE
const STEM = 3.5 * LINE_GAP
/** Room of a metre, in px. */
export const METRE_WIDTH = 22

/** The staff over a printed tab: what stands in it and the room that it takes. */
export interface PaperStaff {
  readonly signs: readonly StaffMeasure[]
  /** Px from the line above down to the top line. */
  readonly above: number
  /** Px from the top line to the bottom line. */
  readonly lines: number
  /** Px under the bottom line. */
  readonly below: number
  /** Room for clef and key at the head of a system. */
  readonly head: number
  readonly svg: (system: SystemLayout, place: Pick<StaffPlace, 'width' | 'height' | 'top'>) => string
}

/** The staff of a tune with its tab, made ready for paper. */
export function paperStaff(tune: TuneDoc, doc: ArrangementDoc, draw: DrawStaff): PaperStaff {
  const { setup, base, transposed } = doc
  const signs = staffOf(tune, transposed, setup, base.notes)
  const { above, below, twoVoices } = staffReach(signs)
  const octaveClef = octaveAbove(setup, base.notes) > 0
  return {
    signs,
    above: Math.round(above * LINE_GAP + (twoVoices ? STEM : 6)),
    lines: 4 * LINE_GAP,
    below: Math.round(below * LINE_GAP + (twoVoices ? STEM : 6)),
    head: Math.max(...signs.map((m) => headWidth(m.key.fifths, LINE_GAP))),
    svg: (system, place) => draw(tune, signs, { ...place, system, scale: SCALE, octaveClef }),
  }
}

/** Where notes of the staff begin in a measure, and the room that its signs need before them. */
export function staffRoomIn(
  { signs }: PaperStaff,
  tune: TuneDoc,
  index: number,
): { readonly onsets: readonly Ticks[]; readonly signs: number } {
  const { upper, lower, key } = signs[index]!
  const [m, before] = [tune.measures[index]!, tune.measures[index - 1]]
  const notes = [...upper, ...lower.filter((s) => s.kind === 'note')]
  const keyChange = before !== undefined && before.key.fifths !== m.key.fifths
  return {
    onsets: notes.map((s) => s.tick),
    signs:
      (isNewMetre(m, before) ? METRE_WIDTH : 0) +
      (keyChange ? 10 + Math.abs(key.fifths) * 7 : 0) +
      accidentalsAtHead(notes) * 7,
  }
}
