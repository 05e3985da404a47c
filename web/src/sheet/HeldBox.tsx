import { ticksAt, type HarmonySegment, type LeftFinger } from '@velvet-porch/core'
import { ChordBox } from '../shapes/ChordBox.tsx'
import { BOX_HEIGHT, BOX_WIDTH } from './metrics.ts'
import type { SheetModel } from './sheetModel.ts'

/** What the hand holds while a chord sounds, as a box over its name. */
export function HeldBox({
  model,
  segment,
  x,
  y,
}: {
  model: SheetModel
  segment: HarmonySegment
  x: number
  y: number
}) {
  const held = heldDuring(model, segment)
  if (!held || !model.setup) return null
  return (
    <svg x={x} y={y - BOX_HEIGHT} width={BOX_WIDTH} height={BOX_HEIGHT} data-testid="held-box">
      <ChordBox
        setup={model.setup}
        frets={held.frets}
        fingers={held.fingers}
        chord={segment.shape}
        size={BOX_SIZE}
      />
    </svg>
  )
}

/** Of the size that boxes have on their own page. */
const BOX_SIZE = 0.5

/**
 * Frets and fingers by string, the first string first: what is held or plucked open on each while a chord sounds, at its
 * first moment; strings that are not used are silent. Undefined where nothing is played.
 */
export function heldDuring(
  { layer, setup, timeline, notes, tune }: SheetModel,
  { start, end }: HarmonySegment,
): { readonly frets: readonly (number | null)[]; readonly fingers: readonly LeftFinger[] } | undefined {
  if (!layer || !setup) return undefined
  const strings = setup.instrument.strings
  const frets: (number | null)[] = Array.from({ length: strings }, () => null)
  const fingers: LeftFinger[] = Array.from({ length: strings }, () => 0)
  const within = (at: number) => at >= start && at < end
  for (const g of layer.grips) {
    if (!within(ticksAt(timeline, g.pos))) continue
    // A finger stands where it was first: where it goes from there is not in the box.
    const busy = new Set(fingers)
    for (const p of g.pressed) {
      if (frets[p.string - 1] !== null || busy.has(p.finger)) continue
      frets[p.string - 1] = p.fret
      fingers[p.string - 1] = p.finger
    }
  }
  tune.measures.forEach((m, i) => {
    const from = timeline.starts[i]!
    if (from >= end || from + m.length <= start) return
    for (const n of notes.get(i) ?? []) {
      const { string, fret, harmonic } = n.place
      if (!within(from + n.pos.tick) || harmonic || frets[string - 1] !== null) continue
      if (n.left !== 0 && fingers.includes(n.left)) continue
      frets[string - 1] = fret
      fingers[string - 1] = n.left
    }
  })
  return frets.some((f) => f !== null) ? { frets, fingers } : undefined
}
