import type { TasteInForce } from '../../document/taste.ts'
import type { Plan, Slice } from '../plan/plan.ts'

/** The taste of a slice, where it prices anything: its shapes are pins of the plan. */
export function tasteAt(plan: Plan, { measure }: Slice): TasteInForce | undefined {
  const taste = plan.regions[measure]?.taste
  return taste && Object.keys(taste.prices).length > 0 ? taste : undefined
}
