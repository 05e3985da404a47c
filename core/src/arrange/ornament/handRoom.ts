import { handFault } from '../../hand/grip/handRules.ts'
import { pressedOf } from '../../hand/grip/pressed.ts'
import type { Grip, PressedPlace } from '../../document/tab.ts'
import { fingersOf, type LeftFinger } from '../../instrument/hand.ts'
import type { Place, Setup } from '../../instrument/setup.ts'

/** All fingers that are down in a grip: those under what sounds, and those that wait for what follows. */
export const allPressed = ({
  pressed,
  ready = [],
}: Pick<Grip, 'pressed' | 'ready'>): readonly PressedPlace[] =>
  ready.length > 0 ? [...pressed, ...ready] : pressed

/**
 * A grip with one finger more, ready on a string that another of its fingers may already press; undefined where the
 * finger is needed elsewhere or the hand does not reach.
 */
export function withFinger(
  setup: Setup,
  grip: Grip,
  { string, fret }: Place,
  finger: Exclude<LeftFinger, 0>,
): Grip | undefined {
  const down = allPressed(grip)
  const own = down.filter((p) => p.finger === finger)
  if (own.some((p) => p.string === string && p.fret === fret)) return grip
  if (own.length > 0) return undefined
  const more: PressedPlace = { string, fret, finger }
  if (handFault(setup, setup.player.spans, pressedOf([...down, more]))) return undefined
  return { ...grip, ready: [...(grip.ready ?? []), more] }
}

/** Fingers that could press a fret beside another finger of the string: in order with the frets, free in the grip. */
export function fingersBeside(
  setup: Setup,
  grip: Grip,
  place: Place,
  beside: { readonly fret: number; readonly finger: LeftFinger },
): (1 | 2 | 3 | 4)[] {
  const away = place.fret - beside.fret
  const fingers = fingersOf(setup.player.techniques) as (1 | 2 | 3 | 4)[]
  return fingers
    .filter((f) => {
      const { finger } = beside
      if (finger !== 0 && finger !== 'T' && Math.sign(f - finger) !== Math.sign(away)) return false
      return withFinger(setup, grip, place, f) !== undefined
    })
    .sort((a, b) => strain(a, beside, away) - strain(b, beside, away))
}

/** How far a finger is from the one that a finger a fret would take; beside an open string the index comes first. */
function strain(finger: number, beside: { fret: number; finger: LeftFinger }, away: number): number {
  if (beside.finger === 0 || beside.finger === 'T') return finger
  return Math.abs(finger - (beside.finger + away))
}
