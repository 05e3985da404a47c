import { ticksAt, type Timeline } from '../../document/form/timeline.ts'
import type { Layer } from '../../document/arrangement.ts'
import type { Grip } from '../../document/tab.ts'
import type { Id } from '../../document/ids.ts'
import type { Ticks } from '../../music/time/ticks.ts'

/**
 * How long each string rings, by note id: until it is struck again, its finger leaves, or (an open string or a harmonic) a finger
 * comes down on it; at most to the end of the page. Derived, never stored.
 */
export function ringOf(layer: Layer, timeline: Timeline): Map<Id, Ticks> {
  const grips = layer.grips
    .map((g) => ({ grip: g, start: ticksAt(timeline, g.pos) }))
    .sort((a, b) => a.start - b.start)
  const notes = layer.notes
    .map((n) => ({ n, start: ticksAt(timeline, n.pos) }))
    .sort((a, b) => a.start - b.start)
  const nextOnString = new Map<number, Ticks>()
  const rings = new Map<Id, Ticks>()
  let g = grips.length - 1
  for (let i = notes.length - 1; i >= 0; i--) {
    const { n, start } = notes[i]!
    while (g > 0 && grips[g]!.start > start) g--
    const restruck = nextOnString.get(n.place.string) ?? timeline.length
    let stop = restruck
    for (let k = g + 1; k < grips.length && grips[k]!.start < stop; k++) {
      if (!keeps(grips[k]!.grip, n.place.string, n.place.harmonic ? 0 : n.place.fret, n.left))
        stop = grips[k]!.start
    }
    rings.set(n.id, stop - start)
    nextOnString.set(n.place.string, start)
  }
  return rings
}

function keeps(grip: Grip, string: number, fret: number, finger: unknown): boolean {
  if (fret === 0) return !grip.pressed.some((p) => p.string === string)
  const own = grip.pressed.some((p) => p.string === string && p.fret === fret && p.finger === finger)
  return own && !grip.pressed.some((p) => p.string === string && p.fret > fret)
}
