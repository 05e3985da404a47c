import type { Finger, PlacedFinger } from '../../hand/moves/placedFinger.ts'
import { gripChange, strainMm } from '../../hand/effort/handMoves.ts'
import { handFault } from '../../hand/grip/handRules.ts'
import { placedPosition } from '../../hand/grip/position.ts'
import { pressedOf } from '../../hand/grip/pressed.ts'
import type { Grip } from '../../document/tab.ts'
import type { Setup } from '../../instrument/setup.ts'
import { mapInTurns, type Turns } from '../../turns.ts'
import type { AlternativeFinger, LessonStep } from './lessonStep.ts'

/** Seconds and millimetres up to which two ways are the same to a hand. Common practice, no source. */
const SAME = { seconds: 0.004, strainMm: 1 }

const FINGERS: readonly Finger[] = [1, 2, 3, 4]

type Held = Pick<Grip, 'pressed' | 'position'>

/**
 * Steps that say which other finger would do as well: for a finger that lands alone and is not needed afterwards,
 * those beside it with which the way there, the way on and the reach cost this hand no more.
 */
export function* alternativeFingers(steps: readonly LessonStep[], setup: Setup): Turns<LessonStep[]> {
  const held = yield* mapInTurns(steps, (s) => heldBy(downIn(s)))
  yield
  const told = (step: LessonStep, i: number): LessonStep => {
    if (step.hand.lands.length !== 1) return step
    const alternatives = step.hand.lands.flatMap((f): AlternativeFinger[] => {
      if (!isFree(f, step, steps[i + 1])) return []
      const cost = (finger: Finger) =>
        costOf(
          setup,
          held[i - 1],
          heldBy(downIn(step).map((d) => (d === f ? { ...d, finger } : d))),
          held[i + 1],
        )
      const own = cost(f.finger)
      const taken = downIn(step).map((d) => d.finger)
      const fingers = FINGERS.filter((finger) => {
        // The finger beside it: farther ones want another place of the whole hand.
        if (taken.includes(finger) || Math.abs(Number(finger) - Number(f.finger)) > 1) return false
        const other = cost(finger)
        return other.seconds <= own.seconds + SAME.seconds && other.strain <= own.strain + SAME.strainMm
      })
      return fingers.length > 0 ? [{ string: f.from, fingers }] : []
    })
    return alternatives.length > 0 ? { ...step, alternatives } : step
  }
  return yield* mapInTurns(steps, told)
}

const downIn = ({ hand }: LessonStep): readonly PlacedFinger[] => [
  ...hand.stays,
  ...hand.slides,
  ...hand.lands,
]

/** True where a finger stops one string for a plain note, and leaves after it. */
function isFree(f: PlacedFinger, step: LessonStep, after: LessonStep | undefined): boolean {
  if (f.from !== f.to || f.finger === 'T') return false
  const goesOn = [...(after?.hand.stays ?? []), ...(after?.hand.slides ?? [])]
  if (goesOn.some((g) => g.finger === f.finger)) return false
  // A join is tied to its finger.
  const joins = [...step.notes, ...(after?.notes.filter((n) => n.string === f.from) ?? [])]
  return joins.every((n) => n.attack === 'pluck' && n.graces.length === 0 && n.touched === undefined)
}

function heldBy(down: readonly PlacedFinger[]): Held {
  const pressed = down.flatMap(({ finger, fret, from, to }) =>
    Array.from({ length: to - from + 1 }, (_, i) => ({ string: from + i, fret, finger })),
  )
  return { pressed, position: placedPosition(down) }
}

function costOf(setup: Setup, before: Held | undefined, now: Held, after: Held | undefined) {
  const pressed = pressedOf(now.pressed)
  if (handFault(setup, setup.player.spans, pressed)) return { seconds: Infinity, strain: Infinity }
  const there = before ? gripChange(setup, before, now).seconds : 0
  const on = after ? gripChange(setup, now, after).seconds : 0
  return { seconds: there + on, strain: strainMm(setup, pressed) }
}
