import { knownIn } from '../../invariant.ts'
import type { Layer } from '../../document/arrangement.ts'
import type { TuneDoc } from '../../document/tune.ts'
import type { Plan } from './plan.ts'

/** Notes of the source's second part that an arrangement of both does not play, or not for their whole time. */
export interface LeftOut {
  /** Index of the measure. */
  readonly measure: number
  readonly notes: number
  /** Kept, but let go early. */
  readonly shortened: number
}

/** What of two parts in one instrument was dropped, by measure. Empty where one part is played. */
export function leftOut(plan: Plan, layer: Pick<Layer, 'notes'>, tune: TuneDoc): LeftOut[] {
  const played = new Map(layer.notes.flatMap((n) => (n.sourceId ? [[n.sourceId, n] as const] : [])))
  const sums = new Map<number, { notes: number; shortened: number }>()
  for (const { part, start, until } of plan.bass) {
    if (!part) continue
    const event = tune.events.find((e) => e.id === part.sourceId)
    const measure = event ? knownIn(plan.timeline.indexOf, event.pos.measure) : 0
    const note = played.get(part.sourceId)
    const sum = sums.get(measure) ?? { notes: 0, shortened: 0 }
    if (!note) sum.notes++
    else if (note.dur.ticks < until - start) sum.shortened++
    sums.set(measure, sum)
  }
  return [...sums]
    .filter(([, s]) => s.notes + s.shortened > 0)
    .map(([measure, s]) => ({ measure, ...s }))
    .sort((a, b) => a.measure - b.measure)
}
