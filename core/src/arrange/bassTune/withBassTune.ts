import type { Grip, Span, TabNote } from '../../document/tab.ts'
import type { Id } from '../../document/ids.ts'
import type { Turns } from '../../turns.ts'
import { findingHands, type TabContext } from '../manual/findHands.ts'
import type { Plan } from '../plan/plan.ts'
import { bassTune } from './bassTune.ts'

/** The measures that have the tune in the bass, with both hands. */
export function* withBassTune(
  context: TabContext,
  plan: Plan,
): Turns<{ notes: readonly TabNote[]; grips: readonly Grip[]; spans: readonly Span[] }> {
  const { tune, setup, regions } = context
  const notes = bassTune(tune, setup, plan, regions)
  const measures = new Set<Id>(
    tune.measures.flatMap((m, i) => (plan.regions[i]?.style === 'bass-tune' ? [m.id] : [])),
  )
  if (notes.length === 0) return { notes, grips: [], spans: [] }
  return yield* findingHands(
    { notes, grips: [], spans: [], locks: [] },
    { ...context, transposed: plan.transposed },
    measures,
    false,
  )
}
