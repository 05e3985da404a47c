import type { Setup } from '../instrument/setup.ts'
import { handFault } from '../hand/grip/handRules.ts'
import { hasFinger, type Pressed } from '../hand/grip/pressed.ts'
import type { HeldShape } from './textbook.ts'

/** Fingers that what sounds needs. */
export interface BusyFingers {
  readonly pressed: readonly Pressed[]
  /** Fingers that touch a node for a harmonic. */
  readonly touching: readonly Pressed[]
}

/**
 * The fingers of what sounds, then every finger of a shape that can be down beside them; barres as the level allows.
 * @param open strings that must ring open
 * @param barreStrings strings that a finger may lie across; a pinned shape keeps its barre
 */
export function withShape(
  setup: Setup,
  shape: HeldShape,
  { pressed: sounding, touching }: BusyFingers,
  open: readonly number[],
  barreStrings: number,
): readonly Pressed[] {
  let pressed = sounding
  const busy = touching.length > 0 ? [...sounding, ...touching] : sounding
  const { techniques } = setup.player
  for (const group of shape.fingers) {
    const strings = group.at(-1)!.string - group[0]!.string + 1
    if (strings > 1 && (!techniques.barre || (strings > barreStrings && !shape.pinned))) continue
    const { finger } = group[0]!
    if (!hasFinger(techniques, finger)) continue
    const rest = group.filter(
      (p) => !sounding.some((s) => s.string === p.string && s.fret === p.fret && s.finger === p.finger),
    )
    if (rest.length === 0 || !rest.every((p) => canStay(p, group, busy, open))) continue
    const more = [...pressed, ...rest]
    if (!handFault(setup, setup.player.spans, [...more, ...touching], open)) pressed = more
  }
  return pressed
}

/** A finger of the shape stays unless its string must sound otherwise or the finger itself is needed elsewhere. */
function canStay(
  p: Pressed,
  group: readonly Pressed[],
  sounding: readonly Pressed[],
  open: readonly number[],
): boolean {
  if (open.includes(p.string)) return false
  return sounding.every((s) => {
    if (s.string === p.string && s.fret <= p.fret) return false
    return s.finger !== p.finger || group.some((g) => g.string === s.string && g.fret === s.fret)
  })
}
