import { handFault } from '../../hand/grip/handRules.ts'
import { pressedOf } from '../../hand/grip/pressed.ts'
import type { Grip, PressedPlace } from '../../document/tab.ts'
import { fingersOf, type LeftFinger } from '../../instrument/hand.ts'
import type { Place, Setup } from '../../instrument/setup.ts'
import { allPressed } from './handRoom.ts'

/**
 * A place held by another finger, in every grip that holds it without a break.
 * @param first index of the first grip that holds it
 * @returns the grips so held, the first of them at `first`; undefined where the finger is needed elsewhere or does not
 * reach
 */
export function heldByOther(
  setup: Setup,
  grips: readonly Grip[],
  first: number,
  { string, fret }: Place,
  old: LeftFinger,
  finger: PressedPlace['finger'],
): Grip[] | undefined {
  const isOld = (p: PressedPlace) => p.string === string && p.fret === fret && p.finger === old
  const held: Grip[] = []
  for (let g = first; g < grips.length; g++) {
    const grip = grips[g]!
    if (!grip.pressed.some(isOld)) break
    const pressed = grip.pressed.map((p) => (isOld(p) ? { ...p, finger } : p))
    const all = allPressed({ ...grip, pressed })
    const elsewhere = all.filter((p) => p.finger === finger && p.string !== string)
    if (elsewhere.length > 0 || handFault(setup, setup.player.spans, pressedOf(all))) return undefined
    held.push({ ...grip, pressed })
  }
  return held
}

/** The fingers other than one, nearest first to that which a finger a fret would put so many frets away. */
export function otherFingers(setup: Setup, finger: LeftFinger, frets: number): (1 | 2 | 3 | 4)[] {
  if (finger === 0 || finger === 'T') return []
  const wanted = finger + frets
  return (fingersOf(setup.player.techniques) as (1 | 2 | 3 | 4)[])
    .filter((f) => f !== finger && Math.sign(f - finger) === Math.sign(frets))
    .sort((a, b) => Math.abs(a - wanted) - Math.abs(b - wanted))
}
