import { codeFret, codeLow, codeTop } from '../grip/pressed.ts'
import type { CostTerm } from '../model/arrangement.ts'
import { keyFret, type CandidateSet, type VoiceKey } from './candidate.ts'
import { HOP_LIMIT_S, WEIGHTS } from './weights.ts'

/** What joins two slices: the time between them and what the second holds over from the first. */
export interface Step {
  readonly seconds: number
  /** True where the melody note (the bass) of the first slice goes on sounding in the second. */
  readonly holdsMelody: boolean
  readonly holdsBass: boolean
  /** Beats that melody and bass still have to sound at the second slice. */
  readonly melodyBeatsLeft: number
  readonly bassBeatsLeft: number
  /** True where the second slice strikes a new bass under the same chord. */
  readonly sameChordBass: boolean
}

/** Finger moves cost at least nothing, so a sorted search may stop early. */
export function transitionCost(a: CandidateSet, i: number, b: CandidateSet, j: number, step: Step): number {
  const hurry = WEIGHTS.hop * hurryOf(step.seconds)
  const tooFast = step.seconds < HOP_LIMIT_S ? WEIGHTS.hopTooFast : 0
  let cost = 0
  for (let f = 0; f < 4; f++) {
    const to = b.fingers[f]![j]!
    if (to === 0) continue
    const from = a.fingers[f]![i]!
    if (from === to) continue
    if (from === 0) cost += WEIGHTS.land
    else if (from >> 5 === to >> 5) {
      cost += WEIGHTS.guide + WEIGHTS.guideMm * 30 * Math.abs((from & 31) - (to & 31))
    } else if ((from & 31) === (to & 31) && overlapsOrTouches(from, to)) cost += WEIGHTS.roll
    else cost += hurry + tooFast
  }
  const mm = Math.abs(a.positionMm[i]! - b.positionMm[j]!)
  if (mm > WEIGHTS.leanLimitMm)
    cost +=
      (WEIGHTS.shift + WEIGHTS.shiftMm * mm) *
      shiftHurry(step.seconds) *
      (a.openOnly[i] ? WEIGHTS.openBridge : 1)
  else cost += WEIGHTS.leanMm * mm
  if (step.holdsMelody && b.melody[j] === 0 && a.melody[i] !== 0) {
    cost += WEIGHTS.melodyCut + WEIGHTS.melodyCutBeat * step.melodyBeatsLeft
  }
  if (step.holdsBass && b.bass[j] === 0 && a.bass[i] !== 0) {
    cost += WEIGHTS.bassCut + WEIGHTS.bassCutBeat * step.bassBeatsLeft
  }
  if (step.sameChordBass && b.bass[j] !== 0 && samePlace(a.bass[i]!, b.bass[j]!))
    cost += WEIGHTS.sameBassAgain
  return cost
}

const hurryOf = (seconds: number) => 1 + WEIGHTS.hopHurry * Math.min(3, 0.3 / Math.max(seconds, 0.01))

/** A shift is dearer in haste and cheaper with time to travel. */
const shiftHurry = (seconds: number) =>
  Math.min(WEIGHTS.shiftMost, Math.max(WEIGHTS.shiftLeast, WEIGHTS.shiftCalmS / Math.max(seconds, 0.01)))

const samePlace = (a: VoiceKey, b: VoiceKey) => (a & 511) === (b & 511)

function overlapsOrTouches(from: number, to: number): boolean {
  return codeTop(from) <= codeLow(to) + 1 && codeTop(to) <= codeLow(from) + 1
}

/** The same cost as a list of terms in words and units, for the reasons. Written apart from the fast form above. */
export function transitionTerms(
  a: CandidateSet,
  i: number,
  b: CandidateSet,
  j: number,
  step: Step,
): CostTerm[] {
  const terms: CostTerm[] = []
  let landed = 0
  for (let f = 0; f < 4; f++) {
    const to = b.fingers[f]![j]!
    const from = a.fingers[f]![i]!
    if (to === 0 || to === from) continue
    if (from === 0) landed++
    else if (codeTop(from) === codeTop(to) && codeLow(from) === codeLow(to)) {
      const frets = Math.abs(codeFret(from) - codeFret(to))
      terms.push({
        term: 'guide',
        cost: WEIGHTS.guide + WEIGHTS.guideMm * 30 * frets,
        quantity: frets,
        unit: 'frets',
      })
    } else if (codeFret(from) === codeFret(to) && overlapsOrTouches(from, to))
      terms.push({ term: 'roll', cost: WEIGHTS.roll })
    else {
      const cost = WEIGHTS.hop * hurryOf(step.seconds) + (step.seconds < HOP_LIMIT_S ? WEIGHTS.hopTooFast : 0)
      terms.push({ term: 'hop', cost, quantity: step.seconds, unit: 's' })
    }
  }
  if (landed > 0) terms.push({ term: 'land', cost: WEIGHTS.land * landed, quantity: landed, unit: 'fingers' })
  const mm = Math.abs(a.positionMm[i]! - b.positionMm[j]!)
  if (mm > 1 && mm <= WEIGHTS.leanLimitMm)
    terms.push({ term: 'lean', cost: WEIGHTS.leanMm * mm, quantity: mm, unit: 'mm' })
  else if (mm > 1) {
    const open = keyFret(a.list[i]!.melody) === 0 && keyFret(a.list[i]!.bass) === 0
    const full = (WEIGHTS.shift + WEIGHTS.shiftMm * mm) * shiftHurry(step.seconds)
    terms.push({
      term: open ? 'shiftOnOpen' : 'shift',
      cost: open ? full * WEIGHTS.openBridge : full,
      quantity: mm,
      unit: 'mm',
    })
  }
  const [from, to] = [a.list[i]!, b.list[j]!]
  if (step.holdsMelody && from.melody && !to.melody) {
    terms.push({
      term: 'melodyCut',
      cost: WEIGHTS.melodyCut + WEIGHTS.melodyCutBeat * step.melodyBeatsLeft,
      quantity: step.melodyBeatsLeft,
      unit: 'beats',
    })
  }
  if (step.holdsBass && from.bass && !to.bass) {
    terms.push({
      term: 'bassCut',
      cost: WEIGHTS.bassCut + WEIGHTS.bassCutBeat * step.bassBeatsLeft,
      quantity: step.bassBeatsLeft,
      unit: 'beats',
    })
  }
  if (step.sameChordBass && to.bass && samePlace(from.bass, to.bass))
    terms.push({ term: 'sameBass', cost: WEIGHTS.sameBassAgain })
  return terms
}
