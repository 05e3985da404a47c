import type { Ticks } from '@velvet-porch/core/music'

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

/** Kept in the browser beside the documents: it is nobody's work, and a page that is reloaded goes on from it. */
function kept(): Record<string, LessonPlace> {
  try {
    const value: unknown = JSON.parse(localStorage.getItem(KEY) ?? '{}')
    return typeof value === 'object' && value !== null ? (value as Record<string, LessonPlace>) : {}
  } catch {
    return {}
  }
}

/** Where the lesson of a tune stood; undefined where it was never looked at. */
export function lessonPlace(tuneId: string): LessonPlace | undefined {
  const { measure, tick, view } = (kept()[tuneId] ?? {}) as Partial<Record<keyof LessonPlace, unknown>>
  const place = typeof measure === 'number' && typeof tick === 'number' && typeof view === 'string'
  return place ? { measure, tick, view } : undefined
}

/** Keeps where the lesson of a tune stands. */
export function keepLessonPlace(tuneId: string, place: LessonPlace): void {
  const { [tuneId]: _, ...others } = kept()
  const newest = [...Object.entries(others), [tuneId, place] as const].slice(-MOST_KEPT)
  try {
    localStorage.setItem(KEY, JSON.stringify(Object.fromEntries(newest)))
  } catch {
    // Storage is full or forbidden: the next page begins at the first step.
  }
}
