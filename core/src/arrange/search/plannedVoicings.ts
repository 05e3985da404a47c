import { highTriads } from '../../chords/highTriads.ts'
import { heldShapesFor, type HeldShape } from '../../chords/textbook.ts'
import { withKindHand, type Setup } from '../../instrument/setup.ts'
import { knownIn, present } from '../../invariant.ts'
import { chordPitchClasses, chordText, type ChordReading } from '../../music/harmony/chordSymbol.ts'
import { WHOLE_STEP } from '../../music/pitch/interval.ts'
import { mod12, type Midi, type PitchClass } from '../../music/pitch/pitch.ts'
import type { PlannedInner } from '../plan/innerLine.ts'
import { pickingOf } from '../plan/pickingOf.ts'
import type { Plan, Slice } from '../plan/plan.ts'
import { barreStrings } from './barreStrings.ts'
import type { RequirementCache } from './requirementCache.ts'
import { tasteAt } from './tasteAt.ts'
import { voicingsFor } from './voicings.ts'
import { LEVEL_RULES } from './weights.ts'

/** Pitch classes of the chord that something is planned under; none where none sounds. */
export const tonesOf = (plan: Plan, planned: PlannedInner): readonly PitchClass[] => {
  const sounding = plan.harmony[planned.segment]?.sounding
  return sounding ? chordPitchClasses(sounding) : []
}

/** The shapes of the chord under a slice, the first of the books first. */
export function heldShapesOf(
  plan: Plan,
  slice: Slice,
  setup: Setup,
  cache: RequirementCache,
): readonly HeldShape[] {
  return knownOf(cache.heldShapes, plan, slice, (shape) => heldShapesFor(shape, setup, plan.pins))
}

/** The triads of the chord under a slice up the neck. */
export function highTriadsOf(
  plan: Plan,
  slice: Slice,
  setup: Setup,
  cache: RequirementCache,
): readonly HeldShape[] {
  return knownOf(cache.highTriads, plan, slice, (shape) => highTriads(shape, setup))
}

/** What is known of the chord under a slice, found when it is first asked for; nothing where none sounds. */
function knownOf(
  known: Map<string, readonly HeldShape[]>,
  plan: Plan,
  slice: Slice,
  find: (shape: ChordReading) => readonly HeldShape[],
): readonly HeldShape[] {
  const shape = plan.harmony[slice.segment]?.shape
  if (!shape) return []
  const key = chordText(shape)
  let found = known.get(key)
  if (!found) known.set(key, (found = find(shape)))
  return found
}

/** Least price of each voice that an answer over the chord has fewer than it could. No source. */
const FULL_ANSWER = 2.5

/** The melody note under which a voicing is struck. */
export function topOf(plan: Plan, planned: PlannedInner): Midi | undefined {
  const slice = plan.slices[knownIn(plan.sliceAt, planned.start)]!
  return slice.melody >= 0 ? plan.melodyMidi[slice.melody] : undefined
}

/** The tone of the chord to which the melody note of a voicing goes on by a step. */
function resolutionOf(plan: Plan, planned: PlannedInner): PitchClass | undefined {
  const { melody } = plan.slices[knownIn(plan.sliceAt, planned.start)]!
  const [top, next] = [plan.melodyMidi[melody], plan.melodyMidi[melody + 1]]
  if (top === undefined || next === undefined) return undefined
  const tones = tonesOf(plan, planned)
  const isUnderSameChord = plan.melody[melody + 1]!.start < plan.harmony[planned.segment]!.end
  const resolves =
    !tones.includes(mod12(top)) && tones.includes(mod12(next)) && Math.abs(next - top) <= WHOLE_STEP
  return isUnderSameChord && resolves ? mod12(next) : undefined
}

/** The voicings that may be struck or held for what is planned, with a key of all that they follow from. */
export function heldVoicings(
  plan: Plan,
  planned: PlannedInner,
  slice: Slice,
  setup: Setup,
  cache: RequirementCache,
  top: Midi | undefined,
): { heldShapes: readonly HeldShape[]; key: string } {
  const sounding = present(plan.harmony[planned.segment]!.sounding)
  const picking = pickingOf(slice.style, slice.school, setup)
  const rules = LEVEL_RULES[slice.level]
  const taste = tasteAt(plan, slice)
  const resolution = resolutionOf(plan, planned)
  const key = [
    chordText(sounding),
    resolution ?? '-',
    top ?? '-',
    planned.voices,
    planned.change,
    planned.rests,
    planned.answers,
    picking,
    slice.level,
    slice.barres,
    slice.stretches,
    taste ? JSON.stringify(taste.prices) : '',
  ].join()
  let known = cache.voicings.get(key)
  if (!known) {
    known =
      top === undefined
        ? heldShapesOf(plan, slice, setup, cache).slice(0, rules.heldShapes)
        : voicingsFor(slice.stretches ? setup : withKindHand(setup), {
            chord: sounding,
            top,
            voices: planned.voices,
            book: heldShapesOf(plan, slice, setup, cache)[0],
            lastFret: rules.lastFret,
            barreStrings: barreStrings(slice, setup),
            thin: planned.answers ? Math.max(FULL_ANSWER, rules.thin) : rules.thin,
            change: planned.change,
            rests: planned.rests,
            resolution,
            answers: planned.answers,
            strummed: picking === 'flatPick',
            taste,
          })
    cache.voicings.set(key, known)
  }
  return { heldShapes: known, key }
}
