import { timelineOf } from '../document/form/timeline.ts'
import type { ArrangementDoc } from '../document/arrangement.ts'
import type { TuneDoc } from '../document/tune.ts'
import { effortOf } from '../hand/effort/effort.ts'
import type { Piece, Unit } from '../lesson/practice/piece.ts'
import { piecesOf } from '../lesson/practice/pieces.ts'
import type { Lesson } from '../lesson/text/lesson.ts'
import type { LogEntry } from '../lesson/practice/practiceLog.ts'
import { USUAL_WAY, type PracticeMethod } from '../lesson/practice/practiceMethod.ts'
import { goalOf, recipeOf, targetOf } from '../lesson/practice/recipe.ts'
import { daysBetween, type Day } from './day.ts'
import type { PieceToPractise } from './practiceList.ts'
import {
  effortOverTime,
  masteredOn,
  shareMastered,
  stuckPieces,
  tempoOverTime,
  type EffortPoint,
  type StuckPiece,
  type TempoPoint,
} from './progress.ts'
import { readinessOf, type Readiness } from './readiness.ts'
import { reviewsOf } from './reviews.ts'

/** How a student stands with a tune. */
export interface Study {
  readonly tuneId: string
  /** Quarter notes a minute that the teacher wants. */
  readonly goalBpm: number
  readonly pieces: readonly Piece[]
  /** The same as they are practised: with minutes and reviews. */
  readonly toPractise: readonly PieceToPractise[]
  readonly stuck: readonly StuckPiece[]
  /** Share of the pieces that are clean at what is to be reached for now, 0 to 1. */
  readonly mastered: number
  readonly tempos: readonly TempoPoint[]
  /** Points of effort of all pieces, and of those mastered, day by day. */
  readonly effort: number
  readonly effortMastered: readonly EffortPoint[]
  /** Absent where all pieces are mastered. */
  readonly readiness?: Readiness
  /** The last day of practice; absent where there was none. */
  readonly lastDay?: Day
  /** Measures (indices) by how their piece stands. */
  readonly measures: readonly MeasureState[]
}

/** How the piece of a measure stands: never practised, practised, stuck, clean at what is to be reached. */
export type MeasureState = 'new' | 'begun' | 'stuck' | 'mastered'

/** What a study is worked out from. */
export interface StudySource {
  readonly tune: TuneDoc
  readonly doc: ArrangementDoc
  /** The unit in which the pieces of the log are numbered. */
  readonly unit: Unit
  readonly entries: readonly LogEntry[]
  /** The day on which the tune was given. */
  readonly given: Day
}

/** How a student stands with a tune on a day, from the tab and the log alone. */
export const studyOf = (
  { tune, doc, unit, entries, given }: StudySource,
  today: Day,
  way: PracticeMethod = USUAL_WAY,
): Study => {
  const effort = effortOf(tune, doc.setup, doc.base, timelineOf(tune.measures))
  return studyIn({ tune, doc, effort, pieces: piecesOf(tune, doc, unit) }, { entries, given }, today, way)
}

/**
 * The same where the lesson is there, which knows pieces and effort.
 * @param lesson its pieces must be those of the log
 */
export function studyIn(
  { tune, doc, effort, pieces }: Pick<Lesson, 'tune' | 'doc' | 'effort' | 'pieces'>,
  { entries, given }: Pick<StudySource, 'entries' | 'given'>,
  today: Day,
  way: PracticeMethod = USUAL_WAY,
): Study {
  const known = entries.filter((e) => daysBetween(e.day, today) >= 0)
  const recipes = pieces.map((piece) => recipeOf(tune, doc, piece, effort, way))
  const goalBpm = goalOf(tune, doc)
  const goalOfPiece = (piece: number) => {
    const recipe = recipes[piece - 1]
    return recipe ? targetOf(recipe.goalBpm, recipe.ceiling) : goalBpm
  }
  const reviews = new Map(reviewsOf(known, goalOfPiece, today).map((r) => [r.piece, r]))
  const stuck = stuckPieces(known, goalOfPiece)
  const stuckOn = new Set(stuck.map((s) => s.piece))
  const mastered = masteredOn(known, goalOfPiece)
  const stateOf = (piece: number): MeasureState =>
    mastered.has(piece) ? 'mastered' : stuckOn.has(piece) ? 'stuck' : reviews.has(piece) ? 'begun' : 'new'
  const toPractise = pieces.map(({ number }, i): PieceToPractise => {
    const review = reviews.get(number)
    const isStuck = stuckOn.has(number)
    return {
      tuneId: tune.id,
      piece: number,
      minutes: recipes[i]!.seconds / SECONDS_A_MINUTE / (review && !isStuck ? TIMES_TO_LEARN : 1),
      stuck: isStuck,
      ...(review ? { review } : {}),
    }
  })
  const effortOfPiece = (number: number) => {
    const piece = pieces[number - 1]
    return piece ? effort.slice(piece.from, piece.to + 1).reduce((sum, m) => sum + m.effort, 0) : 0
  }
  const readiness = readinessOf(known, pieces.length, goalOfPiece, given, today)
  const lastDay = known
    .map((e) => e.day)
    .sort()
    .at(-1)
  return {
    tuneId: tune.id,
    goalBpm,
    pieces,
    toPractise,
    stuck,
    mastered: shareMastered(known, pieces.length, goalOfPiece),
    tempos: tempoOverTime(known),
    effort: pieces.reduce((sum, p) => sum + effortOfPiece(p.number), 0),
    effortMastered: effortOverTime(mastered, effortOfPiece),
    ...(readiness ? { readiness } : {}),
    ...(lastDay === undefined ? {} : { lastDay }),
    measures: tune.measures.map((_, m) => {
      const own = pieces.find((p) => p.from <= m && m <= p.to)
      return own ? stateOf(own.number) : 'new'
    }),
  }
}

const SECONDS_A_MINUTE = 60

/** A review takes so many times less than learning a piece. Common practice, no source. */
const TIMES_TO_LEARN = 3
