import { moveKind, shareString, type MoveKind } from '../hand/moves/fingerMoves.ts'
import type { Finger, FingerSpan } from '../hand/moves/placedFinger.ts'
import type { LeftFinger } from '../instrument/hand.ts'
import { reachAt, reachTable } from '../instrument/reachTable.ts'
import { fretOnNeck, type Setup } from '../instrument/setup.ts'

/** A fingered grip. Arrays by string, string 1 first; frets count from the capo. */
export interface FingeredGrip {
  readonly frets: readonly (number | null)[]
  readonly fingers: readonly LeftFinger[]
}

/**
 * What one finger does in a change of chords. *stay*: it keeps a string and its fret (an anchor); *slide*: it goes along a
 * string (a guide); *move*: it lifts and lands elsewhere; *lift*: it comes off; *land*: it was free.
 */
export interface ChordMove {
  readonly finger: Finger
  readonly kind: 'stay' | 'slide' | 'move' | 'lift' | 'land'
  readonly before?: FingerSpan
  readonly now?: FingerSpan
  /** Way of the fingertip along and across the neck. */
  readonly mm: number
}

export interface ChordChange {
  readonly moves: readonly ChordMove[]
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
export type HandPositions = readonly (FingerSpan | undefined)[]

/** Where each finger of a grip stands. */
export function handPositions(grip: FingeredGrip): HandPositions {
  const positions: (FingerSpan | undefined)[] = [undefined, undefined, undefined, undefined, undefined]
  grip.frets.forEach((fret, i) => {
    const finger = grip.fingers[i]
    if (!fret || !finger) return
    const at = finger === 'T' ? 4 : finger - 1
    positions[at] = { fret, from: positions[at]?.from ?? i + 1, to: i + 1 }
  })
  return positions
}

/** What every finger does between two grips, and what it costs the hand. */
export function chordChange(setup: Setup, from: FingeredGrip, to: FingeredGrip): ChordChange {
  const before = handPositions(from)
  const after = handPositions(to)
  const moves: ChordMove[] = []
  FINGERS.forEach((finger, i) => {
    const a = before[i]
    const b = after[i]
    if (a && b) {
      const kind = guidance(moveKind(a, b), a, b)
      moves.push({ finger, kind, before: a, now: b, mm: kind === 'stay' ? 0 : wayOf(setup, a, b) })
    } else if (a) moves.push({ finger, kind: 'lift', before: a, mm: 0 })
    else if (b) moves.push({ finger, kind: 'land', now: b, mm: 0 })
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
    const kind = guidance(moveKind(a, b), a, b)
    if (kind === 'move') cost += MOVE + wayOf(setup, a, b) * PER_MM
    else {
      guides++
      if (kind === 'slide') cost += SLIDE + wayOf(setup, a, b) * PER_MM
    }
  }
  return guides === 0 && pressed > 0 && next > 0 ? cost + NO_GUIDE : cost
}

/** What a finger that is down in both shapes does for the hand: one that keeps a string in common guides it. */
function guidance(kind: MoveKind, a: FingerSpan, b: FingerSpan): 'stay' | 'slide' | 'move' {
  if (kind === 'stay' || kind === 'slide') return kind
  if (!shareString(a, b)) return 'move'
  return kind === 'roll' ? 'stay' : 'slide'
}

function wayOf(setup: Setup, a: FingerSpan, b: FingerSpan): number {
  const across = Math.max(0, a.from - b.to, b.from - a.to)
  return reachAt(
    reachTable(setup.instrument),
    across,
    fretOnNeck(setup, { string: a.to, fret: a.fret }),
    fretOnNeck(setup, { string: b.to, fret: b.fret }),
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
