import { USUAL_ORNAMENT } from '../../document/style.ts'
import type { Plan } from '../plan/plan.ts'
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
    slurred:
      neighbours &&
      b.melodyOnset &&
      a.melody >= 0 &&
      a.melody === b.melody - 1 &&
      (note?.slurred ?? false) &&
      ornaments(plan, b.measure),
    revoices:
      neighbours &&
      b.innerOnset &&
      voices?.kind === 'chord' &&
      a.inner >= 0 &&
      plan.inner[a.inner]!.kind === 'chord' &&
      plan.inner[a.inner]!.segment === voices.segment,
    shiftShare: b.school.hand === 'position' ? WEIGHTS.positionFirm : 1,
  }
}

/** True where a measure's slurs are to be played as such. */
const ornaments = (plan: Plan, measure: number): boolean =>
  (plan.regions[measure]?.ornament ?? USUAL_ORNAMENT) > 0

/** Seconds that a slice lasts, from the tempo of the slice after it. */
function secondsOfSlice(plan: Plan, at: number): number {
  const slice = plan.slices[at]!
  const next = plan.slices[at + 1]
  return next && slice.end > slice.start ? next.seconds : slice.seconds
}
