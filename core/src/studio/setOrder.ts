import {
  movesBetween,
  movesOf,
  secondsOfMoves,
  secondsOfOrder,
  type SetMove,
  type SetTune,
} from './setMoves.ts'

/** Tunes in an order that saves moves. */
export interface SetOrder {
  readonly order: readonly SetTune[]
  /** What has to be done before each. */
  readonly moves: readonly (readonly SetMove[])[]
  readonly seconds: number
  /** True where no order is better; false where it is the best that was found. */
  readonly exact: boolean
}

/** What the teacher wants at the ends. */
export interface SetEnds {
  readonly first?: string
  readonly last?: string
}

/** Setups up to which the best order is worked out whole. */
export const MOST_EXACT = 12

/** Tunes that are played in one tuning, with one capo, on one instrument: they stand together in a best order. */
type Block = readonly SetTune[]

const setupText = ({ kind, tuning, capo }: SetTune): string => JSON.stringify([kind, tuning, capo])

/**
 * The order in which the fewest seconds go into retuning, moving the capo and changing the instrument. Tunes of one setup stand
 * together (no order is better for parting them: the price of a move is a metric), so up to twelve setups are exact
 * however many tunes there are; of equal orders the one nearest to the order given is taken.
 * @param ends the tunes that are to open and to close
 */
export function setOrder(tunes: readonly SetTune[], ends: SetEnds = {}): SetOrder {
  const blocks: SetTune[][] = []
  const known = new Map<string, SetTune[]>()
  for (const tune of tunes) {
    const pinned = tune.id === ends.first || tune.id === ends.last
    const block = pinned ? undefined : known.get(setupText(tune))
    if (block) block.push(tune)
    else {
      const own = [tune]
      blocks.push(own)
      if (!pinned) known.set(setupText(tune), own)
    }
  }
  const at = (id: string | undefined) => blocks.findIndex((b) => id !== undefined && b[0]!.id === id)
  const first = at(ends.first)
  // One tune cannot both open and close a set of several.
  const last = ends.last === ends.first ? -1 : at(ends.last)
  const exact = blocks.length <= MOST_EXACT
  const found = exact ? bestOrder(blocks, first, last) : goodOrder(blocks, first, last)
  const order = found.flat()
  return { order, moves: movesOf(order), seconds: secondsOfOrder(order), exact }
}

/**
 * The best order by dynamic programming over sets of blocks (Held and Karp, J. SIAM 10, 1962), with one more state an instrument:
 * the block that it was last used for.
 */
function bestOrder(blocks: readonly Block[], first: number, last: number): Block[] {
  const count = blocks.length
  const heads = blocks.map((b) => b[0]!)
  const kinds = [...new Set(heads.map((t) => t.kind))]
  const kindOf = heads.map((t) => kinds.indexOf(t.kind))
  const ownKind = kinds.map((_, k) => heads.flatMap((_, i) => (kindOf[i] === k ? [i] : [])))
  // Digit of an instrument: 0 while it was not used, else the number of its block among its own, from 1.
  const places = ownKind.map((_, k) =>
    ownKind.slice(0, k).reduce((product, own) => product * (own.length + 1), 1),
  )
  const states = ownKind.reduce((product, own) => product * (own.length + 1), 1)
  const digitOf = (state: number, k: number) => Math.floor(state / places[k]!) % (ownKind[k]!.length + 1)
  /** The blocks that a state says were played: a set without one of them cannot be in it. */
  const playedIn = Array.from({ length: states }, (_, state) =>
    kinds.reduce((set, _, k) => {
      const digit = digitOf(state, k)
      return digit === 0 ? set : set | (1 << ownKind[k]![digit - 1]!)
    }, 0),
  )
  const seconds = heads.map((a) =>
    heads.map((b) => (a.kind === b.kind ? secondsOfMoves(movesBetween(a, b)) : 0)),
  )
  const change = kinds.map((to) => secondsOfMoves([{ kind: 'instrument', to }]))
  const none = kinds.length
  const size = states * (none + 1)
  const rest = new Float64Array((1 << count) * size)
  const all = (1 << count) - 1
  const step = (set: number, state: number, hand: number, i: number) => {
    const k = kindOf[i]!
    const digit = digitOf(state, k)
    const before = digit === 0 ? undefined : ownKind[k]![digit - 1]
    const next = state + (ownKind[k]!.indexOf(i) + 1 - digit) * places[k]!
    const price =
      (before === undefined ? 0 : seconds[before]![i]!) + (hand === none || hand === k ? 0 : change[k]!)
    return { price, to: (set | (1 << i)) * size + next * (none + 1) + k, state: next, hand: k }
  }
  const mayCome = (set: number, i: number) => {
    if (set & (1 << i)) return false
    if (first >= 0 && (set === 0) !== (i === first)) return false
    return !(i === last && count > 1 && (set | (1 << i)) !== all)
  }
  for (let set = all - 1; set >= 0; set--)
    for (let state = 0; state < states; state++) {
      if ((playedIn[state]! & set) !== playedIn[state]) continue
      for (let hand = 0; hand <= none; hand++) {
        let best = Infinity
        for (let i = 0; i < count; i++) {
          if (!mayCome(set, i)) continue
          const { price, to } = step(set, state, hand, i)
          best = Math.min(best, price + rest[to]!)
        }
        rest[set * size + state * (none + 1) + hand] = best
      }
    }
  const order: Block[] = []
  let set = 0
  let state = 0
  let hand = none
  while (set !== all) {
    const wanted = rest[set * size + state * (none + 1) + hand]!
    const i = blocks.findIndex((_, b) => {
      if (!mayCome(set, b)) return false
      const { price, to } = step(set, state, hand, b)
      return price + rest[to]! === wanted
    })
    const taken = step(set, state, hand, i)
    order.push(blocks[i]!)
    set |= 1 << i
    state = taken.state
    hand = taken.hand
  }
  return order
}

/** A good order of many setups: the nearest next from every beginning, then stretches turned round or moved while that helps. */
function goodOrder(blocks: readonly Block[], first: number, last: number): Block[] {
  const price = (order: readonly Block[]) => secondsOfOrder(order.map((b) => b[0]!))
  const ends = { first: blocks[first], last: blocks[last] }
  const inside = blocks.filter((b) => b !== ends.first && b !== ends.last)
  const whole = (order: readonly Block[]) => [
    ...(ends.first ? [ends.first] : []),
    ...order,
    ...(ends.last ? [ends.last] : []),
  ]
  let best = inside
  for (const start of inside) {
    const order = [start]
    let open = inside.filter((b) => b !== start)
    while (open.length > 0) {
      const costs = open.map((b) => price(whole([...order, b])))
      const next = open[costs.indexOf(Math.min(...costs))]!
      order.push(next)
      open = open.filter((b) => b !== next)
    }
    if (price(whole(order)) < price(whole(best))) best = order
  }
  for (let better = true; better;) {
    better = false
    for (const other of neighboursOf(best))
      if (price(whole(other)) < price(whole(best))) {
        best = other
        better = true
        break
      }
  }
  return whole(best)
}

/** Orders in which one stretch is turned round or moved elsewhere. */
function* neighboursOf(order: Block[]): Generator<Block[]> {
  for (let from = 0; from < order.length; from++)
    for (let to = from + 1; to <= order.length; to++) {
      const stretch = order.slice(from, to)
      const others = [...order.slice(0, from), ...order.slice(to)]
      if (to - from > 1) yield others.toSpliced(from, 0, ...stretch.toReversed())
      if (to - from <= LONGEST_MOVED)
        for (let at = 0; at <= others.length; at++) if (at !== from) yield others.toSpliced(at, 0, ...stretch)
    }
}

/** Longest stretch that is moved as it stands. */
const LONGEST_MOVED = 3
