/** The studio's memory: students, lessons, practice and its reviews, repertoire, set lists. */
export { csvOf, type Cell } from './recordsCsv.ts'
export { type Day, dayOf, daysAfter, daysBetween, isDay, weekOf } from './day.ts'
export { type Keeping, type LogConflict, type MergedLog, mergeLogs } from './mergeLogs.ts'
export { type PieceToPractise, type PracticeItem, practiceList } from './practiceList.ts'
export {
  type EffortPoint,
  effortOverTime,
  type GoalOf,
  masteredOn,
  minutesAWeek,
  shareMastered,
  STUCK_SESSIONS,
  type StuckPiece,
  stuckPieces,
  type TempoPoint,
  tempoOverTime,
  type WeekMinutes,
} from './progress.ts'
export { type Readiness, readinessOf, waitFor } from './readiness.ts'
export {
  type Assignment,
  type LessonRecord,
  lessonsAround,
  RECORD_LIMITS,
  type StudentRecord,
} from './records.ts'
export {
  freshEntry,
  mostWanted,
  type RepertoireEntry,
  type Rights,
  RIGHTS,
  TUNE_STATUSES,
  type TuneRequest,
  type TuneStatus,
} from './repertoire.ts'
export { gradeOf, type Review, reviewsOf } from './reviews.ts'
export {
  movesBetween,
  movesOf,
  secondsOfMoves,
  secondsOfOrder,
  type SetMove,
  type SetTune,
} from './setMoves.ts'
export { MOST_EXACT, type SetEnds, type SetOrder, setOrder } from './setOrder.ts'
export { MOST_SET_ITEMS, type SetItem, type SetList } from './setList.ts'
export { type MeasureState, type Study, studyIn, studyOf, type StudySource } from './study.ts'
export { minutesOf } from './minutesOf.ts'
export {
  afterRepetition,
  isAtGoal,
  newLadder,
  practisedEntry,
  type TempoLadder,
  writtenOf,
} from './tempoLadder.ts'
export { playedAt, type RecordingMark, secondOf, withMark } from './recordingMarks.ts'
