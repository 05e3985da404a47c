import { isHeldBy } from '../../chords/textbook.ts'
import type { Region } from '../../document/arrangement.ts'
import type { PinnedShape } from '../../document/tune.ts'
import type { Setup } from '../../instrument/setup.ts'
import { chordKey } from '../../taste/tasteDoc.ts'

/** The tune's own pins, and the shapes of a taste for other chords, as far as this hand holds them. */
export function withTasteShapes(
  pins: readonly PinnedShape[],
  regions: readonly Region[],
  setup: Setup,
): readonly PinnedShape[] {
  const shapes = regions.flatMap((r) => r.taste?.shapes ?? []).filter((s) => isHeldBy(setup, s))
  const taken = new Set(pins.map(chordKey))
  const more = [...new Map(shapes.map((s) => [chordKey(s), s])).values()].filter(
    (s) => !taken.has(chordKey(s)),
  )
  return more.length === 0 ? pins : [...pins, ...more.map((s, i) => ({ ...s, id: `taste${i}` }))]
}
