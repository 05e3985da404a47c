import { ornamentOf } from '../../document/regions.ts'
import type { Plan, Slice } from '../plan/plan.ts'
import { isSlurTime, SLUR_SPANS } from '../ornament/usualTimes.ts'
import { WHOLE_STEP } from '../../music/pitch/interval.ts'
import { QUARTER } from '../../music/time/ticks.ts'
import type { Transition } from './transition.ts'
import { WEIGHTS } from './weights.ts'

/** The join from slice `from` to slice `to`, neighbours on the page or in the played order. */
export function stepBetween(plan: Plan, from: number, to: number): Transition {
  const a = plan.slices[from]!
  const b = plan.slices[to]!
  const neighbours = to === from + 1
  const note = plan.melody[b.melody]
  const requirement = plan.bass[b.bass]
  const voices = plan.inner[b.inner]
  const follows = neighbours && b.melodyOnset && a.melody >= 0 && a.melody === b.melody - 1
  const holdsVoices = neighbours && voices !== undefined && !b.innerOnset && a.inner === b.inner
  return {
    seconds: neighbours ? b.seconds : secondsOfSlice(plan, from),
    holdsMelody: neighbours && note !== undefined && !b.melodyOnset && a.melody === b.melody,
    holdsBass: neighbours && requirement !== undefined && !b.bassOnset && a.bass === b.bass,
    holdsInner: holdsVoices && voices.kind === 'double',
    holdsVoicing: holdsVoices && voices.kind === 'chord',
    ringsOn: neighbours && b.rules.ring && b.melodyOnset && a.melody >= 0 && a.melody === b.melody - 1,
    melodyBeatsLeft: note ? (note.start + note.duration - b.start) / QUARTER : 0,
    bassBeatsLeft: requirement ? (requirement.until - b.start) / QUARTER : 0,
    innerBeatsLeft: voices ? Math.max(0, voices.until - b.start) / QUARTER : 0,
    sameChordBass:
      b.bassOnset &&
      requirement?.kind === 'alternate' &&
      a.bass >= 0 &&
      plan.bass[a.bass]!.segment === requirement.segment,
    melodyAgain: a.melodyOnset && b.melodyOnset && plan.melodyMidi[a.melody] === plan.melodyMidi[b.melody],
    slurPrice: follows ? slurPrice(plan, b) : 0,
    upstrokePrice: follows && b.rules.pairs && isFastUpstroke(plan, b) ? WEIGHTS.upstrokeCrosses : 0,
    fillAgainPrice: a.innerOnset && b.innerOnset ? fillAgainPrice(plan, a, b) : 0,
    // A chord takes its notes where its shape has them.
    stepOffOpenPrice:
      follows && !b.rules.ring && voices?.kind !== 'chord' && isStepUpTo(plan, b) ? WEIGHTS.stepOffOpen : 0,
    secondLeapPrice: follows && bothDoubled(plan, a, b) && isStepTo(plan, b) ? WEIGHTS.secondLeaps : 0,
    revoices:
      neighbours &&
      b.innerOnset &&
      voices?.kind === 'chord' &&
      a.inner >= 0 &&
      plan.inner[a.inner]!.kind === 'chord' &&
      plan.inner[a.inner]!.segment === voices.segment,
    ...ledInto(plan, a, b, neighbours),
    shiftShare: b.school.hand === 'position' ? WEIGHTS.positionFirm : 1,
  }
}

const NOTHING_LED = { ledTone: 0, ledDown: 0 }

/** The tone that a new voicing takes on from another chord's. */
function ledInto(plan: Plan, a: Slice, b: Slice, neighbours: boolean): typeof NOTHING_LED {
  const voices = plan.inner[b.inner]
  const before = plan.inner[a.inner]
  if (!neighbours || !b.innerOnset || voices?.kind !== 'chord' || before?.kind !== 'chord') return NOTHING_LED
  return before.segment === voices.segment - 1 ? (plan.ledInto[voices.segment] ?? NOTHING_LED) : NOTHING_LED
}

/** What it costs that a fill strikes the very note of the fill before it: a figure goes on, other fills may as well rest. */
function fillAgainPrice(plan: Plan, a: Slice, b: Slice): number {
  const [before, fill] = [plan.inner[a.inner], plan.inner[b.inner]]
  if (before?.role !== 'fill' || fill?.role !== 'fill') return 0
  if (before.figure && fill.figure) return WEIGHTS.figureOnOneString
  return WEIGHTS.sameFillAgain + (fill.inherited ? WEIGHTS.noInheritedFill : WEIGHTS.noFill)
}

/** True where a second voice is struck with both melody notes. */
const bothDoubled = (plan: Plan, a: Slice, b: Slice): boolean =>
  a.innerOnset && b.innerOnset && [a, b].every((s) => plan.inner[s.inner]?.kind === 'double')

const isStepTo = ({ melodyMidi }: Plan, { melody }: Slice): boolean =>
  Math.abs(melodyMidi[melody]! - melodyMidi[melody - 1]!) <= WHOLE_STEP

const isStepUpTo = (plan: Plan, slice: Slice): boolean =>
  isStepTo(plan, slice) && plan.melodyMidi[slice.melody]! > plan.melodyMidi[slice.melody - 1]!

/** What it costs to pluck a melody note that is to be slurred to the one before it: the source's slur, or one that the hand adds. */
function slurPrice(plan: Plan, { melody, measure }: Slice): number {
  const region = plan.regions[measure]
  const density = region ? ornamentOf(region) : 1
  const note = plan.melody[melody]!
  if (density === 0) return 0
  if (note.slurred) return WEIGHTS.slurBroken
  const before = plan.melody[melody - 1]!
  const far = Math.abs(plan.melodyMidi[melody]! - plan.melodyMidi[melody - 1]!)
  const seconds = plan.secondsBetween(before.start, note.start)
  const isSlur = far > 0 && far <= SLUR_SPANS[density] && !plan.onBeat[melody] && isSlurTime(seconds)
  if (!isSlur) return 0
  return far <= WHOLE_STEP ? WEIGHTS.ownSlurBroken : WEIGHTS.ownWideSlurBroken
}

/** Notes that follow so soon (seconds) leave a pick no time to go round a string. No source. */
const FAST_S = 0.25

/** True for a melody note off the beat that comes fast after another: a flat pick strikes it upwards. */
const isFastUpstroke = (plan: Plan, { melody }: Slice): boolean =>
  !plan.onBeat[melody] &&
  plan.secondsBetween(plan.melody[melody - 1]!.start, plan.melody[melody]!.start) <= FAST_S

/** Seconds that a slice lasts, from the tempo of the slice after it. */
function secondsOfSlice(plan: Plan, at: number): number {
  const slice = plan.slices[at]!
  const next = plan.slices[at + 1]
  return next && slice.end > slice.start ? next.seconds : slice.seconds
}
