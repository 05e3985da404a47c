import { moveKind } from '../moves/fingerMoves.ts'
import { isShift, positionWayMm } from '../moves/handPosition.ts'
import type { FingerSpan } from '../moves/placedFinger.ts'
import { reachMm } from '../grip/handRules.ts'
import {
  codeFret,
  codeLow,
  codeTop,
  fingerCodes,
  pressedOf,
  fingerSpan,
  THUMB,
  type Pressed,
} from '../grip/pressed.ts'
import type { Grip } from '../../document/tab.ts'
import { spanOf } from '../../instrument/hand.ts'
import type { Setup } from '../../instrument/setup.ts'
import { EFFORT, MOVE_S } from './effortWeights.ts'

/** How many mm the widest pair of fingers reaches beyond what this hand holds without strain; 0 where none does. */
export function strainMm(setup: Setup, pressed: readonly Pressed[]): number {
  let most = 0
  for (let i = 0; i < pressed.length; i++) {
    for (let j = i + 1; j < pressed.length; j++) {
      const [a, b] = [pressed[i]!, pressed[j]!]
      if (a.finger === b.finger || a.finger === THUMB || b.finger === THUMB) continue
      const comfort = EFFORT.comfortShare * spanOf(setup.player.spans, a.finger, b.finger)
      most = Math.max(most, reachMm(setup, a, b) - comfort)
    }
  }
  return most
}

/** Strings that lie under barres, counted a barre at a time. */
export function barredStrings(pressed: readonly Pressed[]): number {
  let strings = 0
  for (const finger of new Set(pressed.map((p) => p.finger))) {
    const under = pressed.filter((p) => p.finger === finger).map((p) => p.string)
    if (under.length > 1) strings += Math.max(...under) - Math.min(...under) + 1
  }
  return strings
}

/** What a hand does between two grips. */
export interface GripChange {
  /** Fingers that land or jump. */
  readonly landed: number
  readonly hops: number
  readonly shiftMm: number
  readonly barres: number
  /** What takes the most of the time. */
  readonly main: 'changes' | 'shift' | 'barre' | 'stretch'
  /** Seconds that the move needs; 0 where nothing moves. */
  readonly seconds: number
}

/** What a hand holds, and where. */
type Held = Pick<Grip, 'pressed' | 'position'>

/** The move from one grip to the next, and how long this hand needs for it. */
export function gripChange(setup: Setup, before: Held, after: Held): GripChange {
  const from = pressedOf(before.pressed)
  const to = pressedOf(after.pressed)
  let landed = 0
  let hops = 0
  let slidMm = 0
  let barres = 0
  const [down, next] = [fingerCodes(from), fingerCodes(to)]
  for (let f = 0; f < next.length; f++) {
    const [old, now] = [down[f]!, next[f]!]
    if (now === 0 || now === old) continue
    const kind = old === 0 ? 'land' : moveKind(fingerSpan(old), fingerSpan(now))
    if (kind === 'roll' && covers(fingerSpan(old), fingerSpan(now))) continue
    if (kind === 'slide') slidMm = Math.max(slidMm, positionWayMm(setup, codeFret(old), codeFret(now)))
    else landed++
    if (kind === 'hop') hops++
    if (codeLow(now) > codeTop(now)) barres++
  }
  const moves = landed > 0 || slidMm > 0
  const wayMm = to.length > 0 ? positionWayMm(setup, before.position, after.position) : 0
  const shiftMm = moves && isShift(wayMm) ? wayMm : 0
  if (!moves) return { landed: 0, hops: 0, shiftMm: 0, barres: 0, main: 'changes', seconds: 0 }
  const bridge = from.length === 0 ? MOVE_S.openBridge : 1
  const parts = {
    changes: MOVE_S.finger * landed + MOVE_S.hop * hops + MOVE_S.slideMm * slidMm,
    shift: MOVE_S.shiftMm * shiftMm * bridge,
    barre: MOVE_S.barre * barres,
    stretch: 0,
  }
  const plain = MOVE_S.base + parts.changes + parts.shift + parts.barre
  parts.stretch = (plain * strainMm(setup, to)) / MOVE_S.stretchMm
  const main = (Object.keys(parts) as (keyof typeof parts)[]).reduce((a, b) => (parts[b] > parts[a] ? b : a))
  return { landed, hops, shiftMm, barres, main, seconds: plain + parts.stretch }
}

/** True where a finger already covers all strings of another place. */
const covers = (a: FingerSpan, b: FingerSpan) => a.from <= b.from && a.to >= b.to
