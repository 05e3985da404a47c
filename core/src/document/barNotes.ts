import type { Layer } from './arrangement.ts'
import type { Id } from './ids.ts'

/** The finger that carries a bottleneck. */
export const BAR_FINGER = 4

/** The notes that a bottleneck stops: those that are plucked under it, and those that it slides on to from them. */
export function barNotes({ notes, spans }: Pick<Layer, 'notes' | 'spans'>): Set<Id> {
  const slidTo = new Map(spans.flatMap((s) => (s.kind === 'slide' ? [[s.from, s.to] as const] : [])))
  const onBar = new Set<Id>()
  for (const { id, attack } of notes) {
    if (attack !== 'bottle') continue
    for (let at: Id | undefined = id; at !== undefined && !onBar.has(at); at = slidTo.get(at)) onBar.add(at)
  }
  return onBar
}
