import { present } from '@velvet-porch/core/invariant'
import { chordText, type ChordReading } from '@velvet-porch/core/music'
import type { LeftFinger, Tuning } from '@velvet-porch/core/instrument'
import { newId } from '../newId.ts'
import { change } from './documents.ts'

/** Pins a shape to a tune as one command; another pin for the same chord and tuning gives way. */
export function pinShape(
  tuneId: string,
  chord: ChordReading,
  tuning: Tuning,
  frets: readonly (number | null)[],
  fingers: readonly LeftFinger[],
  label: string,
): Promise<boolean> {
  const name = chordText(chord)
  return change('tune', tuneId, label, (draft) => {
    const others = (draft.pins ?? []).filter((p) => p.chord !== name || p.tuning.join() !== tuning.join())
    draft.pins = [
      ...others,
      { id: newId(), chord: name, tuning: [...tuning], frets: [...frets], fingers: [...fingers] },
    ]
  })
}

/** Takes a pin off a tune. */
export function unpinShape(tuneId: string, pinId: string, label: string): Promise<boolean> {
  return change('tune', tuneId, label, (draft) => {
    const at = draft.pins?.findIndex((p) => p.id === pinId) ?? -1
    if (at >= 0) present(draft.pins).splice(at, 1)
  })
}
