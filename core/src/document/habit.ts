import { PICKING_SCHOOLS } from '../instrument/hand.ts'
import type { RegionChoice } from './regions.ts'
import { HAND_RULES, LIFT_RULES, ROOT_RULES, RUN_RULES, STROKE_RULES, USUAL_SCHOOL } from './school.ts'
import { ORNAMENTS } from './style.ts'

/** Choices that somebody may always make alike, with what each may be. */
export const HABITS = {
  picking: PICKING_SCHOOLS,
  strokes: STROKE_RULES,
  root: ROOT_RULES,
  repeats: ['alike', 'varied'],
  hand: HAND_RULES,
  harmony: ['below', 'above'],
  runs: RUN_RULES,
  liftOff: LIFT_RULES,
  ornament: ORNAMENTS,
} as const satisfies Record<string, readonly (string | number)[]>

export type HabitKey = keyof typeof HABITS

/** A choice that is made for every tune. */
export interface Habit {
  readonly key: HabitKey
  readonly value: string | number
}

/** What a section begins with, with somebody's habits. */
export function withHabits<R extends RegionChoice>(region: R, habits: readonly Habit[]): R {
  return habits.reduce<R>(
    (r, { key, value }) =>
      key === 'ornament'
        ? { ...r, ornament: value }
        : { ...r, school: { ...USUAL_SCHOOL, ...r.school, [key]: value } },
    region,
  )
}

/** The habits that two settings of a section differ in, as the second has them. */
export function habitsChanged(before: RegionChoice, after: RegionChoice): Habit[] {
  const valueOf = (region: RegionChoice, key: HabitKey) =>
    key === 'ornament' ? region.ornament : { ...USUAL_SCHOOL, ...region.school }[key]
  return (Object.keys(HABITS) as HabitKey[]).flatMap((key) => {
    const value = valueOf(after, key)
    return value === undefined || value === valueOf(before, key) ? [] : [{ key, value }]
  })
}
