import type { RightFinger } from '../neck/hand.ts'
import type { Role } from '../model/arrangement.ts'

/** A note as the picking hand meets it. */
export interface PickedNote {
  readonly string: number
  readonly role: Role
}

/** Notes plucked together, with the time since the onset before. */
export interface PickedOnset {
  readonly notes: readonly PickedNote[]
  readonly seconds: number
}

/**
 * Onsets closer than this (seconds) on one string alternate index and middle: about three and a half notes a second,
 * where one finger begins to lag. Common practice, no source.
 */
export const ALTERNATION_S = 0.29

const FINGERS: readonly RightFinger[] = ['p', 'i', 'm', 'a']

/** The finger that waits at each string: p on 6, 5, 4 and i, m, a on 3, 2, 1. */
const HOME: Readonly<Record<number, number>> = { 6: 0, 5: 0, 4: 0, 3: 1, 2: 2, 1: 3 }

/** Price of a finger on a bass, or of the thumb on a treble string: paid only where voices cross. */
const WRONG_KIND = 6

type Hand = readonly number[]

/**
 * Fingers of the picking hand, one a string: thumb on basses, a finger a treble string, index and middle in turn on
 * fast repeated strings. The cheapest assignment by dynamic programming over the fingers of each onset, exact.
 * Within an onset fingers rise with the strings and none is used twice.
 */
export function assignPicking(onsets: readonly PickedOnset[]): RightFinger[][] {
  const states: { hand: Hand; cost: number; back: number }[][] = []
  onsets.forEach((onset, t) => {
    const before = states[t - 1]
    const options = handsFor(onset)
    states.push(
      options.map((hand) => {
        const own = homeCost(onset, hand)
        if (!before) return { hand, cost: own, back: -1 }
        let best = { hand, cost: Infinity, back: -1 }
        before.forEach((b, i) => {
          const cost = b.cost + own + moveCost(onsets[t - 1]!, b.hand, onset, hand)
          if (cost < best.cost) best = { hand, cost, back: i }
        })
        return best
      }),
    )
  })
  const result: RightFinger[][] = []
  let at = -1
  for (let t = onsets.length - 1; t >= 0; t--) {
    const layer = states[t]!
    if (at < 0) at = layer.reduce((low, s, i) => (s.cost < layer[low]!.cost ? i : low), 0)
    result[t] = layer[at]!.hand.map((f) => FINGERS[f]!)
    at = layer[at]!.back
  }
  return result
}

/** Every legal choice of fingers for an onset's notes, in the order of the notes. */
function handsFor(onset: PickedOnset): Hand[] {
  const order = onset.notes.map((n, i) => ({ n, i })).sort((a, b) => b.n.string - a.n.string)
  const hands: Hand[] = []
  const choose = (at: number, from: number, chosen: number[]) => {
    if (at === order.length) {
      hands.push(chosen)
      return
    }
    const { i } = order[at]!
    for (let f = from; f < 4; f++) {
      const next = [...chosen]
      next[i] = f
      choose(at + 1, f + 1, next)
    }
  }
  choose(0, 0, [])
  return hands
}

function homeCost(onset: PickedOnset, hand: Hand): number {
  return onset.notes.reduce((sum, n, i) => {
    const away = Math.abs(hand[i]! - HOME[n.string]!)
    const wrongKind = n.role === 'bass' ? hand[i] !== 0 : hand[i] === 0 && n.string < 4
    return sum + 0.6 * away + (hand[i] === 3 ? 0.15 : 0) + (wrongKind ? WRONG_KIND : 0)
  }, 0)
}

function moveCost(a: PickedOnset, from: Hand, b: PickedOnset, to: Hand): number {
  let cost = 0
  b.notes.forEach((n, i) => {
    const f = to[i]!
    const k = from.indexOf(f)
    if (k >= 0 && f !== 0) {
      const sameString = a.notes[k]!.string === n.string
      if (b.seconds < ALTERNATION_S) cost += 3
      else cost += sameString ? 0 : 0.5
    }
    if (f === 0 && k >= 0 && b.seconds < ALTERNATION_S / 2) cost += 2
  })
  return cost
}
