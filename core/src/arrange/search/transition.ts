import { codeFret, codeLow, codeTop, fingerSpan } from '../../hand/grip/pressed.ts'
import { moveKind } from '../../hand/moves/fingerMoves.ts'
import type { CostTerm } from '../../document/tab.ts'
import { keyFret, keyString, samePlace, soundsOpenOnly, type CandidateSet } from './candidate.ts'
import { HOP_LIMIT_S } from '../../instrument/handLimits.ts'
import { voicesMoved, voicesNotLed } from '../../chords/lowerVoices.ts'
import { WEIGHTS } from './weights.ts'

/** What joins two slices: the time between them and what the second holds over from the first. */
export interface Transition {
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
  /** Price of two melody notes on two strings that are to be slurred: dearer where the source slurs them; 0 for none. */
  readonly slurPrice: number
  /** Price of a fast stroke up on another string than the stroke before it; 0 where the pick may cross. */
  readonly upstrokePrice: number
  /** Price of a fill that strikes the very note of the fill before it; 0 where one of the slices strikes none. */
  readonly fillAgainPrice: number
  /** Price of a step of the melody up from an open string that is taken on a lower string; 0 where it may be. */
  readonly stepOffOpenPrice: number
  /** Price of a second voice that leaps along its string under a step of the melody; 0 where it may. */
  readonly secondLeapPrice: number
  /** True where a chord is struck again: its lower voices should stay. */
  readonly revoices: boolean
  /** Where the tone lies that is to go down by a step into a new chord, as a code of lower voices (0: none), and how far. */
  readonly ledTone: number
  readonly ledDown: number
  /** Price of a shift, as a share: more where the hand is to stay in its position. */
  readonly shiftShare: number
}

/** Cost of going from one candidate to another. Never below nothing, so a sorted search may stop early. */
export function transitionCost(
  a: CandidateSet,
  i: number,
  b: CandidateSet,
  j: number,
  step: Transition,
): number {
  return transitionPricer(a, b, step)(i, j, Infinity)
}

/** Cost from candidate `i` to candidate `j`; once it has reached `limit`, any number from there on may come back. */
export type Pricer = (i: number, j: number, limit: number) => number

/**
 * The same for every pair of two sets: what depends on the step alone is worked out once, and a pair that is too dear
 * is given up half-way.
 */
export function transitionPricer(a: CandidateSet, b: CandidateSet, step: Transition): Pricer {
  const shiftPrice = positionChangePricer(step)
  const fingers = fingerPricer(a, b, step)
  const melodyCut = WEIGHTS.melodyCut + WEIGHTS.melodyCutBeat * step.melodyBeatsLeft
  const bassCut = WEIGHTS.bassCut + WEIGHTS.bassCutBeat * step.bassBeatsLeft
  const innerCut = WEIGHTS.secondCut + WEIGHTS.secondCutBeat * step.innerBeatsLeft
  const {
    holdsMelody,
    holdsBass,
    holdsInner,
    holdsVoicing,
    sameChordBass,
    melodyAgain,
    revoices,
    fillAgainPrice,
    secondLeapPrice,
    stepOffOpenPrice,
  } = step
  const { ledTone, ledDown } = step
  const crossing = step.slurPrice + step.upstrokePrice
  const { positionMm: fromMm, openOnly } = a
  const { positionMm: toMm } = b
  const { melody: fromMelody, bass: fromBass, inner: fromInner, heldShape: fromShape, lower: fromLower } = a
  const { melody: toMelody, bass: toBass, inner: toInner, heldShape: toShape, lower: toLower } = b
  return (i, j, limit) => {
    const again = melodyAgain && substitutes(fromMelody[i]!, toMelody[j]!)
    let cost = shiftPrice(Math.abs(fromMm[i]! - toMm[j]!), openOnly[i] === 1, again)
    if (holdsMelody && toMelody[j] === 0 && fromMelody[i] !== 0) cost += melodyCut
    if (holdsBass && toBass[j] === 0 && fromBass[i] !== 0) cost += bassCut
    if (holdsInner && toInner[j] === 0 && fromInner[i] !== 0) cost += innerCut
    if (holdsVoicing && fromShape[i]! >= 0 && fromShape[i] !== toShape[j]) cost += WEIGHTS.voicingLost
    if (sameChordBass && toBass[j] !== 0 && samePlace(fromBass[i]!, toBass[j]!)) cost += WEIGHTS.sameBassAgain
    if (fillAgainPrice > 0 && toInner[j] !== 0 && samePlace(fromInner[i]!, toInner[j]!))
      cost += fillAgainPrice
    if (secondLeapPrice > 0 && leapsOnString(fromInner[i]!, toInner[j]!)) cost += secondLeapPrice
    if (revoices && toLower[j] !== 0) cost += WEIGHTS.lowerMoved * voicesMoved(fromLower[i]!, toLower[j]!)
    if (ledTone !== 0 && toLower[j] !== 0)
      cost += WEIGHTS.toneNotLed * voicesNotLed(fromLower[i]!, toLower[j]!, ledTone, ledDown)
    if (stepOffOpenPrice > 0 && leavesOpen(fromMelody[i]!, toMelody[j]!)) cost += stepOffOpenPrice
    if (crossing > 0 && crosses(fromMelody[i]!, toMelody[j]!)) cost += crossing
    return cost >= limit ? cost : cost + fingers(i, j)
  }
}

/** Hands as a search lays them out: where each finger stands, and where the hand is. */
export type HandSet = Pick<CandidateSet, 'fingers' | 'codes' | 'positionMm' | 'openOnly'>

/** Price of what the fingers do from hand `i` of the first set to hand `j` of the second. */
export function fingerPricer(
  { fingers, codes: fromCodes }: HandSet,
  { codes: toCodes }: HandSet,
  step: Pick<Transition, 'seconds'>,
): (i: number, j: number) => number {
  const hop = WEIGHTS.hop * hurryOf(step.seconds) + (step.seconds < HOP_LIMIT_S ? WEIGHTS.hopTooFast : 0)
  const { land, roll, guide, guideMm } = WEIGHTS
  return (i, j) => {
    let cost = 0
    let slides = 0
    let slideCost = 0
    let together = true
    let delta = 0
    const [fromAt, toAt] = [i * fingers, j * fingers]
    for (let f = 0; f < fingers; f++) {
      const to = toCodes[toAt + f]!
      if (to === 0) continue
      const from = fromCodes[fromAt + f]!
      if (from === to) together = false
      else if (from === 0) {
        cost += land
        together = false
      } else if (from >> 5 === to >> 5) {
        const frets = (to & 31) - (from & 31)
        if (slides > 0 && frets !== delta) together = false
        delta = frets
        slides++
        slideCost += guide + guideMm * 30 * Math.abs(frets)
      } else {
        together = false
        cost += (from & 31) === (to & 31) && overlapsOrTouches(from, to) ? roll : hop
      }
    }
    return cost + (slides > 1 && together ? slideCost * gripSlideShare(slides) : slideCost)
  }
}

/**
 * Price of carrying the hand along the neck, in mm: a lean within the limit, a shift beyond it; a shift is cheaper while
 * open strings sound, or where a finger takes over another's note.
 */
export function positionChangePricer(
  step: Pick<Transition, 'seconds' | 'shiftShare'>,
): (mm: number, openOnly: boolean, again: boolean) => number {
  const shiftPrice = shiftHurry(step.seconds) * step.shiftShare
  const { leanMm, leanLimitMm, shift, shiftMm, openBridge, substitute } = WEIGHTS
  return (mm, openOnly, again) =>
    mm > leanLimitMm
      ? (shift + shiftMm * mm) * shiftPrice * (openOnly ? openBridge : again ? substitute : 1)
      : leanMm * mm
}

/** Frets along a string from which on a second voice leaps. Common practice, no source. */
const LEAP_FRETS = 3

const leapsOnString = (a: number, b: number) =>
  a !== 0 && b !== 0 && keyString(a) === keyString(b) && Math.abs(keyFret(a) - keyFret(b)) >= LEAP_FRETS

/** From an open string to a lower one: where the melody goes up, the open string would have had it. */
const leavesOpen = (a: number, b: number) =>
  a !== 0 && b !== 0 && keyFret(a) === 0 && keyString(b) > keyString(a)

/** Two notes that no finger can join, and between which a pick goes across: they lie on different strings. */
const crosses = (a: number, b: number) => a !== 0 && b !== 0 && keyString(a) !== keyString(b)

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
  step: Transition,
): CostTerm[] {
  const [from, to] = [a.list[i]!, b.list[j]!]
  const mm = Math.abs(a.positionMm[i]! - b.positionMm[j]!)
  const again = step.melodyAgain && substitutes(from.melody, to.melody)
  const terms: CostTerm[] = [
    ...fingerMoveTerms(a, i, b, j, step),
    ...positionChangeTerms(mm, soundsOpenOnly(from), again, step),
  ]
  const cut = (term: string, once: number, beat: number, beats: number) =>
    terms.push({ term, cost: once + beat * beats, quantity: beats, unit: 'beats' })
  if (step.holdsMelody && from.melody && !to.melody)
    cut('melodyCut', WEIGHTS.melodyCut, WEIGHTS.melodyCutBeat, step.melodyBeatsLeft)
  if (step.holdsBass && from.bass && !to.bass)
    cut('bassCut', WEIGHTS.bassCut, WEIGHTS.bassCutBeat, step.bassBeatsLeft)
  if (step.holdsInner && from.inner && !to.inner)
    cut('secondCut', WEIGHTS.secondCut, WEIGHTS.secondCutBeat, step.innerBeatsLeft)
  if (step.holdsVoicing && from.heldShape >= 0 && from.heldShape !== to.heldShape)
    terms.push({ term: 'voicingLost', cost: WEIGHTS.voicingLost })
  if (step.sameChordBass && to.bass && samePlace(from.bass, to.bass))
    terms.push({ term: 'sameBass', cost: WEIGHTS.sameBassAgain })
  if (step.fillAgainPrice > 0 && to.inner && samePlace(from.inner, to.inner))
    terms.push({ term: 'sameFill', cost: step.fillAgainPrice })
  if (step.secondLeapPrice > 0 && leapsOnString(from.inner, to.inner))
    terms.push({ term: 'secondLeaps', cost: step.secondLeapPrice })
  if (step.stepOffOpenPrice > 0 && leavesOpen(from.melody, to.melody))
    terms.push({ term: 'stepOffOpen', cost: step.stepOffOpenPrice })
  const moved = step.revoices ? voicesMoved(from.lower, to.lower) : 0
  if (moved > 0) terms.push({ term: 'lowerMoved', cost: WEIGHTS.lowerMoved * moved, quantity: moved })
  const notLed =
    step.ledTone !== 0 && to.lower !== 0 ? voicesNotLed(from.lower, to.lower, step.ledTone, step.ledDown) : 0
  if (notLed > 0) terms.push({ term: 'toneNotLed', cost: WEIGHTS.toneNotLed * notLed, quantity: notLed })
  if (crosses(from.melody, to.melody)) {
    if (step.slurPrice > 0) terms.push({ term: 'slurBroken', cost: step.slurPrice })
    if (step.upstrokePrice > 0) terms.push({ term: 'upstrokeCrosses', cost: step.upstrokePrice })
  }
  return terms
}

/** What carrying the hand along the neck costs, as a term. */
export function positionChangeTerms(
  mm: number,
  openOnly: boolean,
  again: boolean,
  step: Pick<Transition, 'seconds' | 'shiftShare'>,
): CostTerm[] {
  if (mm <= 0) return []
  if (mm <= WEIGHTS.leanLimitMm)
    return [{ term: 'lean', cost: WEIGHTS.leanMm * mm, quantity: mm, unit: 'mm' }]
  const full = (WEIGHTS.shift + WEIGHTS.shiftMm * mm) * shiftHurry(step.seconds) * step.shiftShare
  const term = openOnly ? 'shiftOnOpen' : again ? 'shiftBySubstitution' : 'shift'
  const share = openOnly ? WEIGHTS.openBridge : again ? WEIGHTS.substitute : 1
  return [{ term, cost: full * share, quantity: mm, unit: 'mm' }]
}

/** What the fingers do from hand `i` of the first set to hand `j` of the second, as terms. */
export function fingerMoveTerms(
  a: HandSet,
  i: number,
  b: HandSet,
  j: number,
  step: Pick<Transition, 'seconds'>,
): CostTerm[] {
  const terms: CostTerm[] = []
  const slides: { frets: number; cost: number }[] = []
  let landed = 0
  let others = 0
  for (let f = 0; f < b.fingers; f++) {
    const to = b.codes[j * b.fingers + f]!
    const from = a.codes[i * a.fingers + f]!
    if (to === 0) continue
    if (from === 0) {
      landed++
      continue
    }
    const kind = moveKind(fingerSpan(from), fingerSpan(to))
    if (kind === 'slide') {
      const frets = codeFret(to) - codeFret(from)
      slides.push({ frets, cost: WEIGHTS.guide + WEIGHTS.guideMm * 30 * Math.abs(frets) })
      continue
    }
    others++
    if (kind === 'roll') terms.push({ term: 'roll', cost: WEIGHTS.roll })
    else if (kind === 'hop') {
      const cost = WEIGHTS.hop * hurryOf(step.seconds) + (step.seconds < HOP_LIMIT_S ? WEIGHTS.hopTooFast : 0)
      terms.push({ term: 'hop', cost, quantity: step.seconds, unit: 's' })
    }
  }
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
