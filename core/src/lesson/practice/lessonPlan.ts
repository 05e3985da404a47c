import type { LearningStep } from './learningOrder.ts'
import type { Piece } from './piece.ts'
import type { Recipe } from './recipe.ts'

/** What a lesson or a practice of some minutes is made of. */
export interface PlanItem {
  readonly what:
    { readonly kind: 'warmUp' } | { readonly kind: 'rest' } | { readonly kind: 'again' } | LearningStep
  readonly minutes: number
  /** The same as before the rest. */
  readonly goesOn?: true
}

/** Minutes: of a rest and how often one is due, for a change or a join, and the least that anything takes. */
const MINUTES = { rest: 1, restEvery: 12, change: 3, join: 2, whole: 3, least: 2 }

/** Lessons under this many minutes. */
const SHORT = 12

/** Minutes that steps take; pieces take what their recipes say, a difference half of it. */
function minutesOf(step: LearningStep, recipes: (piece: Piece) => Recipe): number {
  if (step.kind !== 'piece') return MINUTES[step.kind]
  const whole = Math.max(MINUTES.least, Math.round(recipes(step.piece).seconds / 60))
  return step.piece.like ? Math.max(MINUTES.least, Math.round(whole / 2)) : whole
}

/**
 * A lesson that fits some minutes: a warm-up, then the steps of the learning order from one on, with rests; the last
 * minutes for all that is known. A step that no longer fits is left for the next time; a long one is gone on with after a
 * rest.
 * @param from index of the first step that is not learnt yet
 * @returns the plan, and the index of the step with which the next one begins
 */
export function lessonPlan(
  order: readonly LearningStep[],
  recipes: (piece: Piece) => Recipe,
  minutes: number,
  from = 0,
): { readonly items: readonly PlanItem[]; readonly next: number } {
  const items: PlanItem[] = []
  let left = Math.max(0, minutes)
  let since = 0
  const add = (item: PlanItem) => {
    items.push(item)
    left -= item.minutes
    since = item.what.kind === 'rest' ? 0 : since + item.minutes
  }
  // Short lessons are short of both.
  const short = minutes < SHORT
  if (left > 1) add({ what: { kind: 'warmUp' }, minutes: short ? 1 : 2 })
  const again = short ? 0 : 3
  let next = from
  for (; next < order.length; next++) {
    const what = order[next]!
    let wanted = minutesOf(what, recipes)
    const rests = MINUTES.rest * Math.floor((since + wanted - 1) / MINUTES.restEvery)
    const room = left - again
    if (room < Math.min(wanted, MINUTES.least)) break
    // A long piece is begun in a lesson that has no other, and gone on with in the next one.
    if (wanted + rests > room && items.some((i) => i.what.kind === 'piece')) break
    let begun = false
    while (wanted > 0) {
      if (since + Math.min(wanted, MINUTES.least) > MINUTES.restEvery) {
        if (left - again < MINUTES.rest + MINUTES.least) break
        add({ what: { kind: 'rest' }, minutes: MINUTES.rest })
      }
      const length = Math.min(wanted, MINUTES.restEvery - since, left - again)
      if (length <= 0) break
      add({ what, minutes: length, ...(begun ? { goesOn: true } : {}) })
      wanted -= length
      begun = true
    }
    if (wanted > 0) break
  }
  if (left > 0 && items.length > 1) add({ what: { kind: 'again' }, minutes: left })
  return { items, next }
}
