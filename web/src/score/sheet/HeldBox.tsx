import type { HarmonySegment } from '@velvet-porch/core/arrange'
import { heldShape } from '@velvet-porch/core/lesson'
import { ChordBox } from '../../ui/chordBox/ChordBox.tsx'
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
  const { layer, setup, timeline } = model
  if (!layer || !setup) return null
  const held = heldShape(layer, setup.instrument.strings, timeline, segment.start, segment.end)
  if (!held) return null
  return (
    <svg x={x} y={y - BOX_HEIGHT} width={BOX_WIDTH} height={BOX_HEIGHT} data-testid="held-box">
      <ChordBox
        setup={setup}
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
