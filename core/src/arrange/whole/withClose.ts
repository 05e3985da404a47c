import { knownIn } from '../../invariant.ts'
import type { Layer, Region } from '../../document/arrangement.ts'
import { measureAt, ticksAt, type Timeline } from '../../document/form/timeline.ts'

/** Measures before the last over which a tune slows down. Common practice, no source. */
const SLOWING = 1

/**
 * Notes as the tune is to come to its end: slower from the last measure but one on, the last moment held. A pace that the notes
 * have stays.
 */
export function withClose<T extends Pick<Layer, 'notes'>>(
  layer: T,
  regions: readonly Region[],
  timeline: Timeline,
): T {
  const { notes } = layer
  if (regions.at(-1)?.close !== 'slower' || notes.length === 0) return layer
  const at = new Map(notes.map((n) => [n, ticksAt(timeline, n.pos)]))
  const end = Math.max(...at.values())
  const from = timeline.starts[Math.max(0, measureAt(timeline, end) - SLOWING)]!
  const first = notes
    .filter((n) => knownIn(at, n) >= from && knownIn(at, n) < end)
    .reduce<(typeof notes)[number] | undefined>(
      (a, n) => (a && knownIn(at, a) <= knownIn(at, n) ? a : n),
      undefined,
    )
  return {
    ...layer,
    notes: notes.map((n) => {
      if (at.get(n) === end) return { ...n, fermata: true as const }
      return n === first && !n.pace ? { ...n, pace: 'rit' as const } : n
    }),
  }
}
