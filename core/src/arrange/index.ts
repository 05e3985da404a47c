/** A tune arranged: plan, search, accompaniment, ornaments, given places, versions by effort, fit, harmony. */
export { type Accompanied, accompany, type AccompanyPlan } from './accompany/accompany.ts'
export { bassPitch, bassRun } from './accompany/bassRun.ts'
export { movedNotes } from './accompany/movedNotes.ts'
export {
  fitsMetre,
  measuresOf,
  type Pattern,
  type PatternStep,
  type PatternString,
  stepsOf,
  stepTicks,
  type Sweep,
} from './accompany/pattern.ts'
export {
  type LibraryPattern,
  nameOfPattern,
  PATTERN_LIBRARY,
  patternsFor,
  type PatternStyle,
  samePattern,
  usualPattern,
} from './accompany/patternLibrary.ts'
export {
  type PatternProblem,
  patternProblemMessage,
  type PatternReading,
  readPattern,
  writePattern,
} from './accompany/patternText.ts'
export { type AccompanyRemark, remarkMessages } from './accompany/remark.ts'
export { type HeldPlace, shufflePair, type ShufflePair } from './accompany/shufflePair.ts'
export {
  bassString,
  otherBass,
  spokenPattern,
  type SpokenStep,
  type Struck,
  struckStrings,
  type StrummedShape,
} from './accompany/struckStrings.ts'
export { type Placement, readStrum, type StrumReading } from './accompany/strumText.ts'
export { TWELVE_BAR_FORMS, twelveBarAbc, type TwelveBarForm } from './accompany/twelveBar.ts'
export { capoTaper, type CapoTaper, type TaperMeasure } from './fit/capoTaper.ts'
export { fitFigures, type FitFigures } from './fit/fitFigures.ts'
export {
  choiceId,
  familiesOf,
  type FitChoice,
  type FitFamily,
  type FitGap,
  type FitQuestion,
  gapOf,
  setupWith,
} from './fit/fitQuestion.ts'
export {
  comparableEstimates,
  estimateFamily,
  estimating,
  type FitOption,
  forKeyAndSinger,
  type WorkedOut,
  workOut,
} from './fit/fitSweep.ts'
export {
  type PartChord,
  type Partner,
  type PartnerPart,
  partnerParts,
  PARTNERS,
  type PartNote,
} from './fit/partners.ts'
export {
  bestTradeOffs,
  complaints,
  finalists,
  type Preferences,
  type Priority,
  ranked,
  UNFELT,
  USUAL_PREFERENCES,
  weigh,
  PRIORITIES,
} from './fit/preferences.ts'
export { ALL_SHIFTS, nearestShift } from './fit/shifts.ts'
export { sweep, type Swept } from './fit/sweep.ts'
export {
  narrowVoice,
  type NarrowVoice,
  type OutsideNote,
  type RangeFault,
  readRange,
  sungFit,
  type SungFit,
  VOICE_TYPES,
  type VoiceRange,
  type VoiceType,
} from './fit/voice.ts'
export { harmonise, harmoniseIn, type HarmonyCandidate } from './harmonise/harmonise.ts'
export { type Manner, MANNERS } from './harmonise/harmonyPalette.ts'
export { type NoteFunction, type NoteReading, readMelody, type Sounding } from './harmonise/melodyReading.ts'
export { withoutOptional } from './manual/withoutOptional.ts'
export { isTouched } from './ornament/arrival.ts'
export { bendableBy, LEAST_BEND_FRET } from './ornament/bendRoom.ts'
export type { LeftOrnament } from './ornament/ornamentPage.ts'
export type { PlannedBass } from './plan/bassLine.ts'
export { type BetterKey, betterKey, betterKeyMessage } from './plan/betterKey.ts'
export type { SecondVoice } from './plan/doubleStop.ts'
export { harmonyLine, type HarmonySegment } from './plan/harmonyLine.ts'
export type { PlannedInner } from './plan/innerLine.ts'
export { leftOut, type LeftOut } from './plan/leftOut.ts'
export {
  type Junction,
  makePlan,
  type OrnamentRoom,
  type Plan,
  type Planned,
  type Slice,
} from './plan/plan.ts'
export type { Register } from './plan/register.ts'
export {
  type BassGrid,
  refusalOf,
  type StyleRefusal,
  styleOn,
  type StyleRules,
  type VoiceGrid,
} from './plan/styleRules.ts'
export { takenByHand, type TakenByHand } from './taken/takenByHand.ts'
export { tasteOfTerm } from './search/tasteTerms.ts'
export { type Alternative, alternativesFor, type TermChange } from './search/alternatives.ts'
export type { BassOption } from './search/bassOptions.ts'
export type { Candidate, CandidateClasses, CandidateSet, VoiceKey } from './search/candidate.ts'
export type { Draft } from './search/draft.ts'
export type { PassingLock } from './search/passingLocks.ts'
export { newMemory, type SolveMemory } from './search/prepare.ts'
export type { InnerOption, Requirement } from './search/requirement.ts'
export type { RequirementCache } from './search/requirementCache.ts'
export type { Chain, Trace } from './search/shortestPath.ts'
export type { SliceLock, VoiceLock } from './search/sliceLock.ts'
export type { Solution } from './search/solve.ts'
export type { Transition } from './search/transition.ts'
export { type CapoStretch, HIGHEST_CAPO, stretchByCapo } from './simplify/stretchByCapo.ts'
export {
  type Change,
  type EffortVersion,
  type MeasureRange,
  type NoteCount,
  versionsByEffort,
} from './simplify/versionsByEffort.ts'
export {
  type Arranged,
  ArrangeError,
  arrangementOf,
  type ArrangeOptions,
  arranging,
  wholeTune,
} from './whole/arrange.ts'
export { songRegions } from './whole/songRegions.ts'
