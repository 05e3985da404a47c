import type { Ticks } from '@velvet-porch/core/music'
import { keepValue, keptValue } from './keptValue.ts'

/** Where a lesson stood when it was last looked at. */
export interface LessonPlace {
  /** Index of the measure. */
  readonly measure: number
  readonly tick: Ticks
  /** Which view of the lesson was chosen. */
  readonly view: string
}

/** Lessons whose place is kept; the one that was left longest ago gives way. */
const MOST_KEPT = 200

const KEY = 'velvet-porch.lessons'

const places = (): Record<string, unknown> => {
  const value = keptValue(KEY)
  return typeof value === 'object' ? (value as Record<string, unknown>) : {}
}

/** Where the lesson of a tune stood; undefined where it was never looked at. */
export function lessonPlace(tuneId: string): LessonPlace | undefined {
  const { measure, tick, view } = (places()[tuneId] ?? {}) as Partial<Record<keyof LessonPlace, unknown>>
  const place = typeof measure === 'number' && typeof tick === 'number' && typeof view === 'string'
  return place ? { measure, tick, view } : undefined
}

/** Keeps where the lesson of a tune stands. */
export function keepLessonPlace(tuneId: string, place: LessonPlace): void {
  const { [tuneId]: _, ...others } = places()
  keepValue(KEY, Object.fromEntries([...Object.entries(others), [tuneId, place]].slice(-MOST_KEPT)))
}
