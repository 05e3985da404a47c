import { between } from '../../document/form/between.ts'
import type { Timeline } from '../../document/form/timeline.ts'
import type { Layer } from '../../document/arrangement.ts'
import type { LeftFinger } from '../../instrument/hand.ts'
import type { Ticks } from '../../music/time/ticks.ts'

/** Frets and fingers by string, the first string first; a string that is not used is silent (null). */
export interface HeldFrets {
  readonly frets: readonly (number | null)[]
  readonly fingers: readonly LeftFinger[]
}

/**
 * What is held or plucked open on each string in a stretch of written time, at its first moment there.
 * @returns undefined where nothing is played
 */
export function heldShape(
  layer: Pick<Layer, 'notes' | 'grips'>,
  strings: number,
  timeline: Timeline,
  start: Ticks,
  end: Ticks,
): HeldFrets | undefined {
  const frets: (number | null)[] = Array.from({ length: strings }, () => null)
  const fingers: LeftFinger[] = Array.from({ length: strings }, () => 0)
  for (const g of between(layer.grips, timeline, start, end)) {
    // A finger stands where it was first: where it goes from there is not in the box.
    const busy = new Set(fingers)
    for (const p of g.pressed) {
      if (frets[p.string - 1] !== null || busy.has(p.finger)) continue
      frets[p.string - 1] = p.fret
      fingers[p.string - 1] = p.finger
    }
  }
  for (const n of between(layer.notes, timeline, start, end)) {
    const { string, fret, harmonic } = n.place
    if (harmonic || frets[string - 1] !== null) continue
    if (n.left !== 0 && fingers.includes(n.left)) continue
    frets[string - 1] = fret
    fingers[string - 1] = n.left
  }
  return frets.some((f) => f !== null) ? { frets, fingers } : undefined
}
