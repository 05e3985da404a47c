/** The finished tab as steps and words, pieces, drills, plans and logs; the player that knows the words alone. */
export type { StepHarmony, StepLength } from './steps/alongside.ts'
export { ALONGSIDE, type Alongside } from './steps/alongsideChoice.ts'
export { differencesOf, type PieceDifference } from './practice/differences.ts'
export { type Drill, drillOf, drillsFor } from './practice/drill.ts'
export { layerOf, TEACH_LAYERS, type TeachLayer } from './practice/layers.ts'
export { type Joining, learningOrder, type LearningStep } from './practice/learningOrder.ts'
export { lessonPlan, type PlanItem } from './practice/lessonPlan.ts'
export { oddSlowly, type OddSlowly } from './practice/oddSlowly.ts'
export { isInPiece, type Piece, type Unit, UNITS } from './practice/piece.ts'
export { piecesOf } from './practice/pieces.ts'
export {
  entriesFrom,
  LOG_FORMAT,
  type LogEntry,
  LONGEST_LOG_NOTE,
  notesOf,
  type PieceProgress,
  type PracticeLog,
  progressOf,
} from './practice/practiceLog.ts'
export { USUAL_WAY, type PracticeMethod } from './practice/practiceMethod.ts'
export { goalOf, pieceTicks, type Recipe, recipeOf, targetOf, temposWithin } from './practice/recipe.ts'
export type { LogOf, Student } from './practice/student.ts'
export { type TroubleSpot, troubleSpots } from './practice/troubleSpots.ts'
export { replay } from './replay/replay.ts'
export { type ReplayedNote, type ReplayedStep, ReplayError } from './replay/replayed.ts'
export type { Count } from './steps/beatCount.ts'
export { type Caution, cautionsOf } from './steps/cautions.ts'
export { type ChordShape, chordShapes } from './steps/chordShapes.ts'
export { handMove } from './steps/handMove.ts'
export { type HeldFrets, heldShape } from './steps/heldShape.ts'
export type {
  AlternativeFinger,
  HandMove,
  LessonStep,
  StepGrace,
  StepNote,
  StepShape,
} from './steps/lessonStep.ts'
export { lessonSteps } from './steps/lessonSteps.ts'
export { passVersions, type PassVersion } from './steps/passSteps.ts'
export {
  differenceText,
  learningText,
  type Phrasing,
  pieceText,
  planText,
  recipeText,
} from './text/learnText.ts'
export {
  cautionWords,
  knownIn,
  type Lesson,
  lessonOf,
  teaching,
  pieceWords,
  type PieceWords,
  recipeIn,
  toLearnIn,
} from './text/lesson.ts'
export { type LessonSettings, lessonSettingsFrom, namingOf, USUAL_LESSON } from './text/lessonSettings.ts'
export { lessonScript, type MeasureScript, type ScriptLine, scriptText } from './text/lessonText.ts'
export { countText, type NameOf, stepSentences } from './text/stepText.ts'
export { fill, readBack } from './text/template.ts'
export { paperWordsFor, wordsFor } from './text/words/languages.ts'
export type { PaperWords } from './text/words/paperWords.ts'
export { type Speech, USUAL_SPEECH } from './text/words/speech.ts'
export type { Wording } from './text/words/wording.ts'
export {
  beatAt,
  betweenBeats,
  isWithin,
  measuresFrom,
  type PageMoment,
  type Stretch,
  stretchOf,
} from './practice/stretch.ts'
