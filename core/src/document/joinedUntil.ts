import type { Ticks } from '../music/time/ticks.ts'
import type { Layer } from './arrangement.ts'
import { ticksAt, type Timeline } from './form/timeline.ts'
import type { Id } from './ids.ts'

/** When the next note is reached from each that is joined to one, by id: until then its string must sound. */
export function joinedUntil(
  { notes, spans }: Pick<Layer, 'notes' | 'spans'>,
  timeline: Timeline,
): Map<Id, Ticks> {
  const reached = new Map(spans.map((s) => [s.to, s.from]))
  return new Map(
    notes.flatMap((n) => {
      const from = reached.get(n.id)
      return from === undefined ? [] : [[from, ticksAt(timeline, n.pos)] as const]
    }),
  )
}
