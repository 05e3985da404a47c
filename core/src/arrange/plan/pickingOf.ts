import type { PickedOnset, PickingHand } from '../../hand/picking/pickedOnset.ts'
import type { TabNote } from '../../document/tab.ts'
import type { Measure } from '../../document/tune.ts'
import { inFullMeasure } from '../../music/time/metre.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import type { Style } from '../../document/style.ts'
import type { School } from '../../document/school.ts'
import type { PickingSchool } from '../../instrument/hand.ts'
import type { Setup } from '../../instrument/setup.ts'
import type { Plan } from './plan.ts'

/**
 * How a style is picked under a school: as the school says, else as the player picks. A flatpicked lead takes a pick,
 * and so do doubled courses: nobody plucks a pair of strings with one finger.
 */
export function pickingOf(
  style: Style,
  school: School,
  setup: Pick<Setup, 'instrument' | 'player'>,
): PickingSchool {
  if (!school.picking && setup.instrument.doubling > 1) return 'flatPick'
  const own = school.picking ?? setup.player.school
  return style === 'flatpicked-lead' && own !== 'pickAndFingers' ? 'flatPick' : own
}

/** The picking hand of a style under a school. */
export const pickingHand = (style: Style, school: School, setup: Setup): PickingHand => ({
  school: pickingOf(style, school, setup),
  strokes: school.strokes,
  strings: setup.instrument.strings,
})

/**
 * Notes that are plucked together, as the picking hand meets them.
 * @param seconds since the onset before
 */
export const pickedOnset = (
  notes: readonly Pick<TabNote, 'place' | 'role'>[],
  measure: Measure,
  tick: Ticks,
  seconds: number,
): PickedOnset => ({
  notes: notes.map(({ place, role }) => ({
    string: place.string,
    role,
    ...(place.artificial ? { artificial: true as const } : {}),
  })),
  seconds,
  inMeasure: inFullMeasure(measure, tick),
  metre: measure.metre,
})

/** What is plucked at one moment, in written time. */
export interface PluckedMoment {
  readonly notes: Parameters<typeof pickedOnset>[0]
  readonly at: Ticks
  readonly measure: number
}

/** Moments that are plucked one after the other, as the picking hand meets them; it has a second before the first. */
export const pickedLine = (
  moments: readonly PluckedMoment[],
  measures: readonly Measure[],
  { timeline, secondsBetween }: Pick<Plan, 'timeline' | 'secondsBetween'>,
): PickedOnset[] =>
  moments.map(({ notes, at, measure }, i) =>
    pickedOnset(
      notes,
      measures[measure]!,
      at - timeline.starts[measure]!,
      i === 0 ? 1 : secondsBetween(moments[i - 1]!.at, at),
    ),
  )
