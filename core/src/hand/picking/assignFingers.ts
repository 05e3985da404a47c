import { cheapestChain } from '../../cheapestChain.ts'
import type { RightFinger } from '../../instrument/hand.ts'
import { PICK_REPEAT_LIMIT_S } from '../../instrument/handLimits.ts'
import { mapInTurns, type Turns } from '../../turns.ts'
import type { PickedOnset, PickingHand } from './pickedOnset.ts'

/**
 * Onsets closer than this (seconds) on one string alternate index and middle: about three and a half notes a second,
 * where one finger begins to lag. Common practice, no source.
 */
export const ALTERNATION_S = 0.29

const FINGERS: readonly RightFinger[] = ['p', 'i', 'm', 'a']
const INDEX = 1

/** Price of a finger on a bass, or of a finger-a-string thumb on a treble: paid only where voices cross. */
const WRONG_KIND = 6

type Fingers = readonly number[]

/** What a school lets the fingers do: which there are, which may brush neighbours, where each waits. */
interface FingerSchool {
  readonly fingers: readonly number[]
  /** Fingers that may sound two or three neighbouring strings at once. */
  readonly brushes: readonly number[]
  /** The finger that waits at each string, string 1 first. */
  readonly home: readonly number[]
  /** Price of the thumb on a treble string. */
  readonly thumbOnTreble: number
}

/**
 * A finger a string: i, m, a on strings 3, 2, 1 and the thumb on the rest, as method books of the early 19th century
 * print it. Thumb and index: the index takes all trebles and may brush, the thumb reaches string 3 in a pinch. Pick and
 * fingers: the pick (in the thumb's place) takes the basses, middle and ring the trebles.
 */
function schoolOf({ school, strings }: PickingHand): FingerSchool {
  const home = (top: readonly number[]) => Array.from({ length: strings }, (_, i) => top[i] ?? 0)
  if (school === 'thumbAndIndex')
    return { fingers: [0, 1], brushes: [1], home: home([1, 1, 1]), thumbOnTreble: 1.6 }
  if (school === 'pickAndFingers')
    return { fingers: [0, 2, 3], brushes: [0], home: home([3, 2, 2]), thumbOnTreble: 2.4 }
  return { fingers: [0, 1, 2, 3], brushes: [], home: home([3, 2, 1]), thumbOnTreble: WRONG_KIND }
}

/**
 * Fingers of the picking hand under its school; index and middle in turn on fast repeated strings. The cheapest
 * assignment by dynamic programming over the fingers of each onset, exact. Within an onset fingers rise with the
 * strings and none is used twice, but to brush neighbours.
 */
export function* assigningFingers(onsets: readonly PickedOnset[], hand: PickingHand): Turns<RightFinger[][]> {
  const school = schoolOf(hand)
  const options = yield* mapInTurns(onsets, (onset) => handsFor(onset, school), 256)
  const { choice } = yield* cheapestChain(
    options.map((hands, t) => ({ prices: hands.map((fingers) => homeCost(onsets[t]!, fingers, school)) })),
    (t) => (i, j) => moveCost(onsets[t - 1]!, options[t - 1]![i]!, onsets[t]!, options[t]![j]!),
  )
  return choice.map((at, t) => options[t]![at]!.map((f) => FINGERS[f]!))
}

/** Every legal choice of fingers for an onset's notes, in the order of the notes; brushes only where fingers run out. */
function handsFor(onset: PickedOnset, school: FingerSchool): Fingers[] {
  const order = onset.notes.map((n, i) => ({ n, i })).sort((a, b) => b.n.string - a.n.string)
  const fingers = onset.notes.some((n) => n.artificial)
    ? school.fingers.filter((f) => f !== INDEX)
    : school.fingers
  const search = (brushers: readonly number[]): Fingers[] => {
    const hands: Fingers[] = []
    const choose = (at: number, from: number, chosen: number[]) => {
      const here = order[at]
      if (!here) {
        hands.push(chosen)
        return
      }
      const before = order[at - 1]
      for (const f of fingers) {
        const neighbour = before && before.n.string === here.n.string + 1
        const brush = brushers.includes(f) && neighbour && chosen[before.i] === f
        if (f < from && !brush) continue
        const next = [...chosen]
        next[here.i] = f
        choose(at + 1, f + 1, next)
      }
    }
    choose(0, 0, [])
    return hands
  }
  const plain = search([])
  if (plain.length > 0 && school.brushes.length === 0) return plain
  const brushed = search(school.brushes)
  if (plain.length + brushed.length > 0) return [...plain, ...brushed]
  // More notes than the school has fingers for: the lowest are swept by the thumb.
  return [
    sweep(
      order.map(({ i }) => i),
      fingers,
    ),
  ]
}

function sweep(lowToHigh: readonly number[], fingers: readonly number[]): number[] {
  const hand: number[] = []
  const swept = Math.max(0, lowToHigh.length - fingers.length)
  lowToHigh.forEach((i, k) => (hand[i] = k <= swept ? fingers[0]! : fingers[k - swept]!))
  return hand
}

function homeCost(onset: PickedOnset, hand: Fingers, school: FingerSchool): number {
  return onset.notes.reduce((sum, n, i) => {
    const home = school.home[n.string - 1]!
    const away = Math.abs(hand[i]! - home)
    const onBass = n.role === 'bass' && hand[i] !== 0 ? WRONG_KIND : 0
    const thumb = n.role !== 'bass' && hand[i] === 0 && home !== 0 ? school.thumbOnTreble : 0
    const brushed = hand.some((f, k) => k !== i && f === hand[i]) ? 0.8 : 0
    return sum + 0.6 * away + (hand[i] === 3 ? 0.15 : 0) + onBass + thumb + brushed
  }, 0)
}

function moveCost(a: PickedOnset, from: Fingers, b: PickedOnset, to: Fingers): number {
  const alternates = b.seconds < ALTERNATION_S && !pluckTogether(a, b)
  let cost = 0
  b.notes.forEach((n, i) => {
    const f = to[i]!
    const k = from.indexOf(f)
    if (k >= 0 && f !== 0) {
      const sameString = a.notes[k]!.string === n.string
      if (alternates) cost += 3
      else cost += sameString ? 0 : 0.5
    }
    if (f === 0 && k >= 0 && b.seconds < ALTERNATION_S / 2) cost += 2
  })
  return cost
}

/**
 * True where notes plucked together follow on notes plucked together: the hand plucks as a whole, and its fingers need not
 * take turns. Common practice, no source.
 */
const pluckTogether = (a: PickedOnset, b: PickedOnset): boolean =>
  a.notes.length > 1 && b.notes.length > 1 && b.seconds >= PICK_REPEAT_LIMIT_S
