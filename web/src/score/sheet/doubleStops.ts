import { intervalOf, type Interval } from '@velvet-porch/core/music'
import { pitchAt } from '@velvet-porch/core/instrument'
import type { TabNote } from '@velvet-porch/core/document'
import type { SheetModel } from './sheetModel.ts'

/** Where the melody has a second voice in the style of double stops, and at what interval. */
export function doubleStops(
  { setup, doubleStyle }: Pick<SheetModel, 'setup' | 'doubleStyle'>,
  notes: readonly TabNote[],
): { readonly tick: number; readonly interval: Interval }[] {
  if (!setup) return []
  return notes.flatMap((n) => {
    if (n.role !== 'melody' || !doubleStyle.has(n.pos.measure)) return []
    const second = notes.find((h) => h.role === 'harmony' && h.pos.tick === n.pos.tick)
    return second
      ? [{ tick: n.pos.tick, interval: intervalOf(pitchAt(setup, second.place) - pitchAt(setup, n.place)) }]
      : []
  })
}
