import type { PlacedFinger } from '../../hand/moves/placedFinger.ts'
import type { LessonStep } from './lessonStep.ts'

/** Fingers that land at once from which on it helps to get ready. */
const MANY = 2

/**
 * Steps at which the hand has time before a change: fingers that are in the air now and land next, where this step asks
 * nothing of the hand and the next one shifts it or lands several at once.
 */
export function withPreparedFingers(steps: readonly LessonStep[]): LessonStep[] {
  return steps.map((step, i) => {
    const next = steps[i + 1]
    const idle = step.hand.lands.length === 0 && step.hand.slides.length === 0 && step.shift === undefined
    if (!next || !idle) return step
    const down = new Set(step.hand.stays.map((f) => f.finger))
    const prepared = next.hand.lands.filter((f: PlacedFinger) => !down.has(f.finger))
    const needed = next.shift !== undefined || next.hand.lands.length >= MANY
    return needed && prepared.length > 0 ? { ...step, prepared } : step
  })
}
