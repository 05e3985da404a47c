import { codeFret, codeLow, codeTop } from '../grip/pressed.ts'
import type { CostTerm } from '../model/arrangement.ts'
import { samePlace, soundsOpenOnly, type CandidateSet } from './candidate.ts'
import { HOP_LIMIT_S, WEIGHTS } from './weights.ts'

/** What joins two slices: the time between them and what the second holds over from the first. */
export interface Step {
  readonly seconds: number
  /** True where the melody note (the bass, the second voice, the voicing) of the first slice sounds on in the second. */
  readonly holdsMelody: boolean
  readonly holdsBass: boolean
  readonly holdsInner: boolean
  readonly holdsVoicing: boolean
  /** True where the melody note of the first slice may ring on beside a new one. */
  readonly ringsOn: boolean
  /** Beats that melody, bass and second voice still have to sound at the second slice. */
  readonly melodyBeatsLeft: number
  readonly bassBeatsLeft: number
  readonly innerBeatsLeft: number
  /** True where the second slice strikes a new bass under the same chord. */
  readonly sameChordBass: boolean
  /** True where both slices strike a melody note, of one pitch. */
  readonly melodyAgain: boolean
  /** Price of a shift, as a share: more where the hand is to stay in its position. */
  readonly shiftShare: number
}

/** Cost of going from one candidate to another. Never below nothing, so a sorted search may stop early. */
export function transitionCost(a: CandidateSet, i: number, b: CandidateSet, j: number, step: Step): number {
  return transitionPricer(a, b, step)(i, j)
}

/** The same for every pair of two sets: what depends on the step alone is worked out once. */
export function transitionPricer(
  a: CandidateSet,
  b: CandidateSet,
  step: Step,
): (i: number, j: number) => number {
  const hop = WEIGHTS.hop * hurryOf(step.seconds) + (step.seconds < HOP_LIMIT_S ? WEIGHTS.hopTooFast : 0)
  const shiftPrice = shiftHurry(step.seconds) * step.shiftShare
  const melodyCut = WEIGHTS.melodyCut + WEIGHTS.melodyCutBeat * step.melodyBeatsLeft
  const bassCut = WEIGHTS.bassCut + WEIGHTS.bassCutBeat * step.bassBeatsLeft
  const innerCut = WEIGHTS.secondCut + WEIGHTS.secondCutBeat * step.innerBeatsLeft
  const { holdsMelody, holdsBass, holdsInner, holdsVoicing, sameChordBass, melodyAgain } = step
  const hands = b.fingers.length
  const [fromFingers, toFingers] = [a.fingers, b.fingers]
  const [fromMm, toMm] = [a.positionMm, b.positionMm]
  return (i, j) => {
    let cost = 0
    let slides = 0
    let slideCost = 0
    let together = true
    let delta = 0
    for (let f = 0; f < hands; f++) {
      const to = toFingers[f]![j]!
      if (to === 0) continue
      const from = fromFingers[f]![i]!
      if (from === to) {
        together = false
        continue
      }
      if (from === 0) {
        cost += WEIGHTS.land
        together = false
      } else if (from >> 5 === to >> 5) {
        const frets = (to & 31) - (from & 31)
        if (slides > 0 && frets !== delta) together = false
        delta = frets
        slides++
        slideCost += WEIGHTS.guide + WEIGHTS.guideMm * 30 * Math.abs(frets)
      } else {
        together = false
        cost += (from & 31) === (to & 31) && overlapsOrTouches(from, to) ? WEIGHTS.roll : hop
      }
    }
    cost += slides > 1 && together ? slideCost * gripSlideShare(slides) : slideCost
    const mm = Math.abs(fromMm[i]! - toMm[j]!)
    if (mm > WEIGHTS.leanLimitMm) {
      const again = melodyAgain && substitutes(a.melody[i]!, b.melody[j]!)
      cost +=
        (WEIGHTS.shift + WEIGHTS.shiftMm * mm) *
        shiftPrice *
        (a.openOnly[i] ? WEIGHTS.openBridge : again ? WEIGHTS.substitute : 1)
    } else cost += WEIGHTS.leanMm * mm
    if (holdsMelody && b.melody[j] === 0 && a.melody[i] !== 0) cost += melodyCut
    if (holdsBass && b.bass[j] === 0 && a.bass[i] !== 0) cost += bassCut
    if (holdsInner && b.inner[j] === 0 && a.inner[i] !== 0) cost += innerCut
    if (holdsVoicing && a.frame[i]! >= 0 && a.frame[i] !== b.frame[j]) cost += WEIGHTS.voicingLost
    if (sameChordBass && b.bass[j] !== 0 && samePlace(a.bass[i]!, b.bass[j]!)) cost += WEIGHTS.sameBassAgain
    return cost
  }
}

const hurryOf = (seconds: number) => 1 + WEIGHTS.hopHurry * Math.min(3, 0.3 / Math.max(seconds, 0.01))

/** A shift is dearer in haste and cheaper with time to travel. */
const shiftHurry = (seconds: number) =>
  Math.min(WEIGHTS.shiftMost, Math.max(WEIGHTS.shiftLeast, WEIGHTS.shiftCalmS / Math.max(seconds, 0.01)))

/** A whole grip that slides costs as one finger and a little for each further one. */
const gripSlideShare = (fingers: number) => (1 + (fingers - 1) * WEIGHTS.gripSlide) / fingers

/** One pitch at one place, struck again with another finger. */
const substitutes = (a: number, b: number) => a !== 0 && a !== b && samePlace(a, b)

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
  const [from, to] = [a.list[i]!, b.list[j]!]
  const terms: CostTerm[] = [...fingerMoves(a, i, b, j, step)]
  const mm = Math.abs(a.positionMm[i]! - b.positionMm[j]!)
  if (mm > 0 && mm <= WEIGHTS.leanLimitMm)
    terms.push({ term: 'lean', cost: WEIGHTS.leanMm * mm, quantity: mm, unit: 'mm' })
  else if (mm > WEIGHTS.leanLimitMm) {
    const full = (WEIGHTS.shift + WEIGHTS.shiftMm * mm) * shiftHurry(step.seconds) * step.shiftShare
    const open = soundsOpenOnly(from)
    const again = step.melodyAgain && substitutes(from.melody, to.melody)
    const term = open ? 'shiftOnOpen' : again ? 'shiftBySubstitution' : 'shift'
    const share = open ? WEIGHTS.openBridge : again ? WEIGHTS.substitute : 1
    terms.push({ term, cost: full * share, quantity: mm, unit: 'mm' })
  }
  const cut = (term: string, once: number, beat: number, beats: number) =>
    terms.push({ term, cost: once + beat * beats, quantity: beats, unit: 'beats' })
  if (step.holdsMelody && from.melody && !to.melody)
    cut('melodyCut', WEIGHTS.melodyCut, WEIGHTS.melodyCutBeat, step.melodyBeatsLeft)
  if (step.holdsBass && from.bass && !to.bass)
    cut('bassCut', WEIGHTS.bassCut, WEIGHTS.bassCutBeat, step.bassBeatsLeft)
  if (step.holdsInner && from.inner && !to.inner)
    cut('secondCut', WEIGHTS.secondCut, WEIGHTS.secondCutBeat, step.innerBeatsLeft)
  if (step.holdsVoicing && from.frame >= 0 && from.frame !== to.frame)
    terms.push({ term: 'voicingLost', cost: WEIGHTS.voicingLost })
  if (step.sameChordBass && to.bass && samePlace(from.bass, to.bass))
    terms.push({ term: 'sameBass', cost: WEIGHTS.sameBassAgain })
  return terms
}

function fingerMoves(a: CandidateSet, i: number, b: CandidateSet, j: number, step: Step): CostTerm[] {
  const terms: CostTerm[] = []
  const slides: { frets: number; cost: number }[] = []
  let landed = 0
  let others = 0
  b.fingers.forEach((codes, f) => {
    const to = codes[j]!
    const from = a.fingers[f]![i]!
    if (to === 0) return
    if (to === from) others++
    else if (from === 0) landed++
    else if (codeTop(from) === codeTop(to) && codeLow(from) === codeLow(to)) {
      const frets = codeFret(to) - codeFret(from)
      slides.push({ frets, cost: WEIGHTS.guide + WEIGHTS.guideMm * 30 * Math.abs(frets) })
    } else if (codeFret(from) === codeFret(to) && overlapsOrTouches(from, to)) {
      others++
      terms.push({ term: 'roll', cost: WEIGHTS.roll })
    } else {
      others++
      const cost = WEIGHTS.hop * hurryOf(step.seconds) + (step.seconds < HOP_LIMIT_S ? WEIGHTS.hopTooFast : 0)
      terms.push({ term: 'hop', cost, quantity: step.seconds, unit: 's' })
    }
  })
  const whole =
    slides.length > 1 && landed + others === 0 && slides.every((s) => s.frets === slides[0]!.frets)
  if (whole) {
    const cost = slides.reduce((sum, s) => sum + s.cost, 0) * gripSlideShare(slides.length)
    terms.push({ term: 'gripSlide', cost, quantity: Math.abs(slides[0]!.frets), unit: 'frets' })
  } else
    for (const s of slides)
      terms.push({ term: 'guide', cost: s.cost, quantity: Math.abs(s.frets), unit: 'frets' })
  if (landed > 0) terms.push({ term: 'land', cost: WEIGHTS.land * landed, quantity: landed, unit: 'fingers' })
  return terms
}
