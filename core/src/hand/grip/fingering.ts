import { present } from '../../invariant.ts'
import type { HandSpans, LeftFinger, Player } from '../../instrument/hand.ts'
import { fingersOf, spanOf } from '../../instrument/hand.ts'
import { reachTable, type ReachTable } from '../../instrument/reachTable.ts'
import type { Setup } from '../../instrument/setup.ts'
import { FINGERING_WEIGHTS } from './fingeringWeights.ts'
import { GRIP_FEATURES, gripFeatures, type FingerPlace, type GripFeature } from './gripFeatures.ts'

/** One way to hold a shape. `fingers` are by string, string 1 first; 0 where no finger presses. */
export interface Fingering {
  readonly fingers: readonly LeftFinger[]
  readonly cost: number
}

/** One part of a fingering's cost. */
export interface FingeringReason {
  readonly feature: GripFeature
  readonly amount: number
  readonly cost: number
}

interface Note {
  readonly string: number
  readonly fret: number
}

const WEIGHTS = Float64Array.from(GRIP_FEATURES, (f) => FINGERING_WEIGHTS[f])
const measured = new Float64Array(GRIP_FEATURES.length)

/** Calls `visit` for every fingering of a shape that breaks no hard rule of the hand. `hand` is reused: read, don't keep. */
export type FingeringVisit = (hand: readonly FingerPlace[]) => void

/**
 * Every fingering of a shape that this hand can hold: fingers rise with the frets, a finger on several strings is a
 * barre with no lower fret and no open string inside, no pair reaches wider than the hand, the thumb only over the
 * lowest two strings.
 * @param frets fret by string, string 1 first, counted from the nut where fretted: null muted, 0 open
 */
export function eachFingering(
  setup: Setup,
  frets: readonly (number | null)[],
  player: Pick<Player, 'spans' | 'techniques'>,
  visit: FingeringVisit,
): void {
  const notes = sortedNotes(frets)
  if (!notes) return
  const hand = workingHand
  const search = new FingeringSearch(frets, player, reachTable(setup.instrument), hand, visit)
  search.assign(notes, 0, 0, 0)
  if (player.techniques.thumbOver && frets.length >= 6) withThumb(notes, frets.length, hand, search)
}

/** The fretted notes by fret, then from the lowest string; undefined where five frets would need five fingers. */
function sortedNotes(frets: readonly (number | null)[]): Note[] | undefined {
  const notes: Note[] = []
  let distinct = 0
  for (let string = frets.length; string >= 1; string--) {
    const fret = frets[string - 1]
    if (!fret) continue
    let at = notes.length
    let known = false
    while (at > 0 && notes[at - 1]!.fret >= fret) {
      at--
      if (notes[at]!.fret === fret) {
        known = true
        at++
        break
      }
    }
    if (!known) distinct++
    notes.splice(at, 0, { string, fret })
  }
  return distinct > 5 ? undefined : notes
}

/** One hand for all searches: each leaves it empty. */
const workingHand = emptyHand()

function emptyHand(): FingerPlace[] {
  return Array.from({ length: 6 }, () => ({ fret: 0, top: 0, low: 0 }))
}

function withThumb(
  notes: readonly Note[],
  lowest: number,
  hand: FingerPlace[],
  search: FingeringSearch,
): void {
  const under = notes.find((n) => n.string === lowest)
  if (!under) return
  const rest = notes.filter((n) => n !== under)
  if (rest.length === 0) return
  const nearest = Math.min(...rest.map((n) => n.fret))
  if (under.fret > nearest + 1 || under.fret < nearest - 1) return
  const thumb = hand[5]!
  Object.assign(thumb, { fret: under.fret, top: lowest, low: lowest })
  search.assign(rest, 0, 0, 0)
  const beside = rest.find((n) => n.string === lowest - 1 && n.fret === under.fret)
  if (beside && rest.length > 1) {
    thumb.top = lowest - 1
    search.assign(
      rest.filter((n) => n !== beside),
      0,
      0,
      0,
    )
  }
  Object.assign(thumb, { fret: 0, top: 0, low: 0 })
}

const spanTables = new WeakMap<HandSpans, Float64Array>()

function spanTable(spans: HandSpans): Float64Array {
  const known = spanTables.get(spans)
  if (known) return known
  const table = new Float64Array(25)
  for (let f = 1; f <= 4; f++)
    for (let g = 1; g <= 4; g++) if (f !== g) table[f * 5 + g] = spanOf(spans, f, g)
  spanTables.set(spans, table)
  return table
}

class FingeringSearch {
  private readonly lastFinger: number
  private readonly frets: readonly (number | null)[]
  /** Reach of fingers f and g at index f * 5 + g. */
  private readonly spans: Float64Array
  private readonly barre: boolean
  private readonly mm: Float64Array
  private readonly neckFrets: number
  private readonly hand: FingerPlace[]
  private readonly visit: FingeringVisit

  constructor(
    frets: readonly (number | null)[],
    player: Pick<Player, 'spans' | 'techniques'>,
    table: ReachTable,
    hand: FingerPlace[],
    visit: FingeringVisit,
  ) {
    this.frets = frets
    this.spans = spanTable(player.spans)
    this.barre = player.techniques.barre
    this.lastFinger = fingersOf(player.techniques).length
    this.mm = table.mm
    this.neckFrets = table.frets
    this.hand = hand
    this.visit = visit
  }

  /**
   * Gives note `n` a finger and goes on. `floor` is the highest finger on lower frets, `last` the finger of the note
   * before on the same fret.
   */
  assign(notes: readonly Note[], n: number, floor: number, last: number): void {
    const note = notes[n]
    if (!note) {
      if (this.holds()) this.visit(this.hand)
      return
    }
    const { hand } = this
    const before = notes[n - 1]
    const sameFret = before?.fret === note.fret
    let lowest = floor
    if (!sameFret) for (let f = 1; f <= 4; f++) if (hand[f]!.fret > 0) lowest = Math.max(lowest, f)
    if (sameFret && this.barre && last > 0) {
      const place = hand[last]!
      if (this.canBarre(note, place.top)) {
        const top = place.top
        place.top = note.string
        this.assign(notes, n + 1, lowest, last)
        place.top = top
      }
    }
    for (let finger = lowest + 1; finger <= this.lastFinger; finger++) {
      const place = hand[finger]!
      if (place.fret > 0 || !this.mayReach(finger, note.fret)) continue
      place.fret = note.fret
      place.top = place.low = note.string
      this.assign(notes, n + 1, lowest, finger)
      place.fret = place.top = place.low = 0
    }
  }

  /** True when no open string and no lower fret lies between the barre's top and the string to add. */
  private canBarre(note: Note, top: number): boolean {
    for (let string = note.string + 1; string < top; string++) {
      const fret = this.frets[string - 1]
      if (fret !== null && present(fret) < note.fret) return false
    }
    return true
  }

  /** Along the neck alone: what fails here fails however the barres grow. */
  private mayReach(finger: number, fret: number): boolean {
    for (let f = 1; f <= 4; f++) {
      const place = this.hand[f]!
      if (f === finger || place.fret === 0) continue
      if (this.mm[place.fret * this.neckFrets + fret]! > this.spans[f * 5 + finger]!) return false
    }
    return true
  }

  /** The whole hand, across the strings too, from the nearest string of a barre: the finger lies there anyway. */
  private holds(): boolean {
    for (let f = 1; f < 4; f++) {
      const a = this.hand[f]!
      if (a.fret === 0) continue
      for (let g = f + 1; g <= 4; g++) {
        const b = this.hand[g]!
        if (b.fret === 0) continue
        const across = Math.max(0, a.top - b.low, b.top - a.low)
        const mm = this.mm[(across * this.neckFrets + a.fret) * this.neckFrets + b.fret]!
        if (mm > this.spans[f * 5 + g]!) return false
      }
    }
    return true
  }
}

/** Fret by string as the wood counts it; open strings stay 0. */
export function fretsOnNeck(setup: Setup, frets: readonly (number | null)[]): (number | null)[] {
  return frets.map((f, i) => (f ? f + setup.capo[i]! : f))
}

/**
 * The cheapest fingerings of a shape, best first; empty when this hand cannot hold it.
 * @param frets fret by string, string 1 first, counted from the capo
 * @example fingeringsOf(guitarSetup(), [0, 1, 0, 2, 3, null], player, 1)[0].fingers // [0, 1, 0, 2, 3, 0]
 */
export function fingeringsOf(
  setup: Setup,
  frets: readonly (number | null)[],
  player: Pick<Player, 'spans' | 'techniques'> = setup.player,
  count = 3,
): Fingering[] {
  const onNeck = fretsOnNeck(setup, frets)
  const capo = Math.max(...setup.capo)
  const best: Fingering[] = []
  eachFingering(setup, onNeck, player, (hand) => {
    const cost = costOf(hand, onNeck, capo)
    if (best.length === count && cost >= best[count - 1]!.cost) return
    if (best.length === count) best.pop()
    best.push({ cost, fingers: fingersByString(hand, onNeck) })
    best.sort((a, b) => a.cost - b.cost)
  })
  return best
}

/** The price of the cheapest fingering, or undefined when this hand cannot hold the shape. `onNeck` as in `eachFingering`. */
export function cheapestFingering(
  setup: Setup,
  onNeck: readonly (number | null)[],
  player: Pick<Player, 'spans' | 'techniques'>,
): number | undefined {
  const capo = Math.max(...setup.capo)
  let least: number | undefined
  eachFingering(setup, onNeck, player, (hand) => {
    const cost = costOf(hand, onNeck, capo)
    if (least === undefined || cost < least) least = cost
  })
  return least
}

function costOf(hand: readonly FingerPlace[], onNeck: readonly (number | null)[], capo: number): number {
  gripFeatures(hand, onNeck, capo, measured)
  let cost = 0
  for (let i = 0; i < measured.length; i++) cost += measured[i]! * WEIGHTS[i]!
  return cost
}

/**
 * What makes a fingering's cost, dearest first; negative parts speak for it.
 * @param frets counted from the capo, string 1 first
 */
export function fingeringReasons(
  setup: Setup,
  frets: readonly (number | null)[],
  fingers: readonly LeftFinger[],
): FingeringReason[] {
  const onNeck = fretsOnNeck(setup, frets)
  const hand = emptyHand()
  for (let string = frets.length; string >= 1; string--) {
    const finger = fingers[string - 1]
    if (!finger) continue
    const place = hand[finger === 'T' ? 5 : finger]!
    if (place.fret === 0) place.low = string
    place.fret = onNeck[string - 1]!
    place.top = string
  }
  gripFeatures(hand, onNeck, Math.max(...setup.capo), measured)
  return GRIP_FEATURES.map((feature, i) => ({
    feature,
    amount: measured[i]!,
    cost: measured[i]! * WEIGHTS[i]!,
  }))
    .filter((r) => r.amount !== 0)
    .sort((a, b) => b.cost - a.cost)
}

/** The finger on each string of a hand, string 1 first; 0 where none presses. */
export function fingersByString(
  hand: readonly FingerPlace[],
  onNeck: readonly (number | null)[],
): LeftFinger[] {
  return onNeck.map((fret, i) => {
    if (!fret) return 0
    const finger = hand.findIndex((p) => p.fret === fret && p.top <= i + 1 && p.low >= i + 1)
    return finger === 5 ? 'T' : (finger as LeftFinger)
  })
}
