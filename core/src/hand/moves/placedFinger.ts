import type { Grip, PressedPlace } from '../../document/tab.ts'

/** A finger of the fretting hand; the thumb over the neck is `T`. */
export type Finger = PressedPlace['finger']

/** What a finger covers: strings `from` (highest-pitched) to `to` at one fret, counted from the capo. */
export interface FingerSpan {
  readonly fret: number
  readonly from: number
  readonly to: number
}

/** A finger on the neck; more than one string is a barre. */
export interface PlacedFinger extends FingerSpan {
  readonly finger: Finger
}

/** All fingers that are down in a grip, those included that wait beneath for a pull-off; index finger first, thumb last. */
export function placedFingers(grip: Pick<Grip, 'pressed' | 'ready'> | undefined): PlacedFinger[] {
  const placed: PlacedFinger[] = []
  for (const { finger, fret, string } of [...(grip?.pressed ?? []), ...(grip?.ready ?? [])]) {
    const at = placed.findIndex((p) => p.finger === finger && p.fret === fret)
    const known = placed[at]
    if (!known) placed.push({ finger, fret, from: string, to: string })
    else placed[at] = { ...known, from: Math.min(known.from, string), to: Math.max(known.to, string) }
  }
  return placed.sort((a, b) => order(a.finger) - order(b.finger))
}

const order = (finger: Finger): number => (finger === 'T' ? 5 : finger)

/** The finger that stops a string: of those that are on it the one that is highest up the neck, put there before laid across. */
export function heldOn(down: readonly PlacedFinger[], string: number): PlacedFinger | undefined {
  const there = down.filter((f) => f.from <= string && string <= f.to)
  return there.sort((a, b) => b.fret - a.fret || a.to - a.from - (b.to - b.from))[0]
}
