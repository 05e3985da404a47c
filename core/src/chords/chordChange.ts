import type { LeftFinger } from '../instrument/hand.ts'
import { reachAt, reachTable } from '../instrument/reachTable.ts'
import { fretOnNeck, type Setup } from '../instrument/setup.ts'

/** A fingered grip. Arrays by string, string 1 first; frets count from the capo. */
export interface FingeredGrip {
  readonly frets: readonly (number | null)[]
  readonly fingers: readonly LeftFinger[]
}

/** Where a finger stands: strings `top` to `low` at a fret counted from the capo. */
export interface FingerPosition {
  readonly fret: number
  readonly top: number
  readonly low: number
}

/**
 * What one finger does in a change. *stay*: same fret and string (an anchor); *slide*: along its string (a guide);
 * *move*: lifts and lands elsewhere; *lift*: comes off; *land*: was free.
 */
export interface FingerMove {
  readonly finger: Exclude<LeftFinger, 0>
  readonly kind: 'stay' | 'slide' | 'move' | 'lift' | 'land'
  readonly from?: FingerPosition
  readonly to?: FingerPosition
  /** Way of the fingertip along and across the neck. */
  readonly mm: number
}

export interface ChordChange {
  readonly moves: readonly FingerMove[]
  /** Sum of the ways in mm. */
  readonly mm: number
  /** How much the change asks of the hand; 0 keeps every finger. */
  readonly cost: number
}

/** Prices: a guide finger is worth half a lifted one; landing a finger costs less than carrying it over. No source. */
const SLIDE = 0.3
const MOVE = 1.2
const LAND = 0.7
const LIFT = 0.25
const PER_MM = 0.02
/** A change without any finger that stays or slides has nothing to feel its way by. */
const NO_GUIDE = 0.8
const FINGERS = [1, 2, 3, 4, 'T'] as const

/** The places of fingers 1–4 and the thumb, in that order; undefined where a finger is free. */
export type HandPositions = readonly (FingerPosition | undefined)[]

/** Where each finger of a grip stands. */
export function handPositions(grip: FingeredGrip): HandPositions {
  const spots: (FingerPosition | undefined)[] = [undefined, undefined, undefined, undefined, undefined]
  grip.frets.forEach((fret, i) => {
    const finger = grip.fingers[i]
    if (!fret || !finger) return
    const at = finger === 'T' ? 4 : finger - 1
    spots[at] = { fret, top: spots[at]?.top ?? i + 1, low: i + 1 }
  })
  return spots
}

/** What every finger does between two grips, and what it costs the hand. */
export function chordChange(setup: Setup, from: FingeredGrip, to: FingeredGrip): ChordChange {
  const before = handPositions(from)
  const after = handPositions(to)
  const moves: FingerMove[] = []
  FINGERS.forEach((finger, i) => {
    const a = before[i]
    const b = after[i]
    if (a && b) {
      const kind = kindOf(a, b)
      moves.push({ finger, kind, from: a, to: b, mm: kind === 'stay' ? 0 : wayOf(setup, a, b) })
    } else if (a) moves.push({ finger, kind: 'lift', from: a, mm: 0 })
    else if (b) moves.push({ finger, kind: 'land', to: b, mm: 0 })
  })
  return { moves, mm: moves.reduce((sum, m) => sum + m.mm, 0), cost: changeCost(setup, before, after) }
}

/** The cost of `chordChange` alone, for searches that ask for thousands. */
export function changeCost(setup: Setup, before: HandPositions, after: HandPositions): number {
  let cost = 0
  let guides = 0
  let pressed = 0
  let next = 0
  for (let i = 0; i < 5; i++) {
    const a = before[i]
    const b = after[i]
    if (a) pressed++
    if (b) next++
    if (!a || !b) {
      if (a) cost += LIFT
      if (b) cost += LAND
      continue
    }
    const kind = kindOf(a, b)
    if (kind === 'move') cost += MOVE + wayOf(setup, a, b) * PER_MM
    else {
      guides++
      if (kind === 'slide') cost += SLIDE + wayOf(setup, a, b) * PER_MM
    }
  }
  return guides === 0 && pressed > 0 && next > 0 ? cost + NO_GUIDE : cost
}

function kindOf(a: FingerPosition, b: FingerPosition): 'stay' | 'slide' | 'move' {
  if (a.top > b.low || b.top > a.low) return 'move'
  return a.fret === b.fret ? 'stay' : 'slide'
}

function wayOf(setup: Setup, a: FingerPosition, b: FingerPosition): number {
  const across = Math.max(0, a.top - b.low, b.top - a.low)
  return reachAt(
    reachTable(setup.instrument),
    across,
    fretOnNeck(setup, { string: a.low, fret: a.fret }),
    fretOnNeck(setup, { string: b.low, fret: b.fret }),
  )
}

/** The easiest change between any of the first grips and any of the second. */
export function bestPair<G extends FingeredGrip>(
  setup: Setup,
  first: readonly G[],
  second: readonly G[],
): { readonly from: G; readonly to: G; readonly change: ChordChange } | undefined {
  let best: { from: G; to: G; change: ChordChange } | undefined
  for (const from of first)
    for (const to of second) {
      const change = chordChange(setup, from, to)
      if (!best || change.cost < best.change.cost) best = { from, to, change }
    }
  return best
}
