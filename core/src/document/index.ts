/** The tune and the arrangement: styles, tab, locks, regions, commands, form, ids, freshness, migration. */
export { BAR_FINGER, barNotes } from './barNotes.ts'
export { alignIds } from './align.ts'
export {
  ARRANGEMENT_SCHEMA,
  type ArrangementDoc,
  type Layer,
  type PatternText,
  type Region,
  type Variant,
} from './arrangement.ts'
export { type Habit, type HabitKey, HABITS, habitsChanged, withHabits } from './habit.ts'
export {
  MOST_TASTE_PRICE,
  TASTE_FEATURES,
  type TasteFeature,
  type TasteInForce,
  type TastePrices,
  type TasteShape,
} from './taste.ts'
export { type Close, CLOSES, type LastChord, LAST_CHORDS } from './close.ts'
export { command, type Command, commandTo, redo, undo } from './command.ts'
export { sameContent } from './content.ts'
export { difference, type Difference } from './difference.ts'
export {
  type Expression,
  EXPRESSION_PARTS,
  type ExpressionPart,
  EXPRESSIONS,
  type ExpressionWord,
} from './expression.ts'
export { type BassOrder, bassOrdersText, readBassOrders } from './bassOrder.ts'
export { type Feel, FEELS } from './feel.ts'
export { withCuts } from './form/cutMeasures.ts'
export { type Departure, type DepartureOf, departures } from './form/departures.ts'
export { formMap, type FormMap, type FormPart } from './form/formMap.ts'
export { measureNumbers } from './form/measureNumbers.ts'
export { playedNext } from './form/playedNext.ts'
export type { TempoChange } from './form/tempoMap.ts'
export { measureAt, type MelodyNote, melodyOf, ticksAt, type Timeline, timelineOf } from './form/timeline.ts'
export { type Occurrence, unfold, type Unfolded } from './form/unfold.ts'
export { isFresh, madeFresh } from './freshness/fresh.ts'
export { inputHash } from './freshness/inputHash.ts'
export { orderedHash } from './freshness/orderedHash.ts'
export type { Id } from './ids.ts'
export { keepSuggestions } from './keepSuggestions.ts'
export { LIMITS } from './limits.ts'
export {
  type AskedArticulation,
  isLockOf,
  type Lock,
  type LockedMeasure,
  type LockField,
  lockId,
  lockOf,
  type LockOf,
  type LockValues,
  type NewLock,
  placeAndFinger,
  withId,
} from './locks.ts'
export { hasSlideRoom, type Mark, MARKS, SLIDE_MARKS, slideEnd, type SlideMark } from './marks.ts'
export { arrangementAsNow, commandAsNow } from './migrate/asNow.ts'
export { bassNoteId, innerNoteId, melodyNoteId } from './noteIds.ts'
export { opening } from './opening.ts'
export {
  filledRound,
  givenMeasures,
  joinRegion,
  ornamentOf,
  regionAt,
  type RegionChoice,
  splitRegion,
  tidyRegions,
  toTaste,
  withChoice,
} from './regions.ts'
export {
  HAND_RULES,
  type HandRule,
  LIFT_RULES,
  ROOT_RULES,
  type RootRule,
  RUN_RULES,
  type School,
  STROKE_RULES,
  type StrokeRule,
  USUAL_SCHOOL,
} from './school.ts'
export { rolledChords } from './rolledChords.ts'
export type { Score } from './score.ts'
export { lineBars, type LineBars, type PlacedChange } from './lineBars.ts'
export type { Song, SongLine } from './song.ts'
export { isSongAlone } from './songAlone.ts'
export { changesOn, type ChangeOnLine, wordsInMeasures } from './songWords.ts'
export {
  type Accompaniment,
  ACCOMPANIMENTS,
  isAccompaniment,
  isSolo,
  type Level,
  LEVELS,
  type Omission,
  type Ornament,
  ORNAMENTS,
  OTHER_TUNE_STYLES,
  SOLO_STYLES,
  type SoloStyle,
  type Style,
  STYLES,
} from './style.ts'
export {
  type Arrival,
  ARRIVALS,
  type Attack,
  type CostTerm,
  type GraceNote,
  type Grip,
  isArrival,
  LONGEST_REMARK,
  type PressedPlace,
  type Role,
  type Span,
  type TabNote,
} from './tab.ts'
export type {
  AbcSpan,
  ChordMark,
  Duration,
  Jump,
  Measure,
  PinnedShape,
  Pos,
  Provenance,
  Section,
  TempoMark,
  TuneDoc,
  TuneEvent,
  Tuplet,
} from './tune.ts'
export { layerOfMeasures, variantsOf, withVariant } from './variants.ts'
export { canSwing, feelMarks, feelOfMeasures } from './swing.ts'
export { type SungAt, sungIn, versesOf } from './verses.ts'
