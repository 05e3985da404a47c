import { effortOf, type MeasureEffort } from '../../hand/effort/effort.ts'
import { timelineOf } from '../../document/form/timeline.ts'
import { measureNumbers } from '../../document/form/measureNumbers.ts'
import type { ArrangementDoc } from '../../document/arrangement.ts'
import type { TuneDoc } from '../../document/tune.ts'
import { pitchAt } from '../../instrument/setup.ts'
import { finish, type Turns } from '../../turns.ts'
import { spellInKey, transposeKey } from '../../music/pitch/key.ts'
import { noteIn } from '../../music/pitch/noteNaming.ts'
import { cautionsOf, type Caution } from '../steps/cautions.ts'
import { differencesOf, type PieceDifference } from '../practice/differences.ts'
import { learningOrder, type LearningStep } from '../practice/learningOrder.ts'
import { differenceText, pieceText, recipeText, type Phrasing } from './learnText.ts'
import type { LessonSettings } from './lessonSettings.ts'
import type { LessonStep } from '../steps/lessonStep.ts'
import { stepsOfAllPasses } from '../steps/passSteps.ts'
import { scripting, type MeasureScript } from './lessonText.ts'
import type { Piece } from '../practice/piece.ts'
import { oddSlowly } from '../practice/oddSlowly.ts'
import { leftToLearn, studentOf, type LogOf, type Student } from '../practice/student.ts'
import { piecesOf } from '../practice/pieces.ts'
import { goalOf, recipeOf, targetOf, type Recipe } from '../practice/recipe.ts'
import type { NameOf } from './stepText.ts'
import { fill } from './template.ts'
import { troubleSpots, type TroubleSpot } from '../practice/troubleSpots.ts'
import { paperWordsFor, wordsFor } from './words/languages.ts'

/** Everything that is taught of one tab, under the settings of a teacher. */
export interface Lesson {
  readonly tune: TuneDoc
  readonly doc: ArrangementDoc
  readonly settings: LessonSettings
  readonly phrasing: Phrasing
  readonly nameOf: NameOf | undefined
  readonly steps: readonly LessonStep[]
  readonly script: readonly MeasureScript[]
  readonly effort: readonly MeasureEffort[]
  readonly pieces: readonly Piece[]
  readonly spots: readonly TroubleSpot[]
  readonly goalBpm: number
  readonly order: readonly LearningStep[]
  readonly cautions: readonly Caution[]
  /** What a log tells of the student; absent where there is none. */
  readonly student?: Student
}

/** @param log what the student wrote down so far: the plan and the tempos go on from there */
export const lessonOf = (tune: TuneDoc, doc: ArrangementDoc, settings: LessonSettings, log?: LogOf): Lesson =>
  finish(teaching(tune, doc, settings, log))

/** The same, giving its turn back. */
export function* teaching(
  tune: TuneDoc,
  doc: ArrangementDoc,
  settings: LessonSettings,
  log?: LogOf,
): Turns<Lesson> {
  const words = wordsFor(settings.speech)
  const phrasing: Phrasing = {
    words,
    paper: paperWordsFor(settings.speech.language),
    numbers: measureNumbers(tune.measures),
  }
  const nameOf = namesOf(tune, doc, settings.names)
  const steps = yield* stepsOfAllPasses(tune, doc, settings.alongside)
  yield
  const effort = effortOf(tune, doc.setup, doc.base, timelineOf(tune.measures))
  yield
  const pieces = piecesOf(tune, doc, settings.unit)
  const spots = troubleSpots(tune, doc, effort)
  const goalBpm = goalOf(tune, doc)
  yield
  const script = yield* scripting(tune, doc, words, steps, nameOf)
  yield
  return {
    tune,
    doc,
    settings,
    phrasing,
    nameOf,
    steps,
    script,
    effort,
    pieces,
    spots,
    goalBpm,
    order: learningOrder(pieces, spots, goalBpm, settings.joining),
    cautions: cautionsOf(doc, effort, goalBpm),
    ...(log && log.entries.length > 0
      ? { student: studentOf(tune, doc, pieces, effort, settings.way, log) }
      : {}),
  }
}

/** How a piece of a lesson is practised by its student. */
export function recipeIn({ tune, doc, effort, settings, student }: Lesson, piece: Piece): Recipe {
  const way = { ...settings.way, tries: student?.tries ?? settings.way.tries }
  return recipeOf(tune, doc, piece, effort, way, student?.clean.get(piece.number))
}

/** The pieces of a lesson that its student plays clean at their target. */
export const knownIn = (lesson: Lesson): Piece[] =>
  lesson.pieces.filter((piece) => {
    const { goalBpm, ceiling } = recipeIn(lesson, piece)
    return (lesson.student?.clean.get(piece.number) ?? 0) >= targetOf(goalBpm, ceiling)
  })

/** The order of a lesson without what its student has learnt. */
export const toLearnIn = (lesson: Lesson): readonly LearningStep[] =>
  lesson.student ? leftToLearn(lesson.order, knownIn(lesson), lesson.student.whole) : lesson.order

/** What a piece has otherwise than the one that it is like; none where it is new. */
function differencesIn({ tune, doc, pieces }: Lesson, piece: Piece): PieceDifference[] {
  const like = piece.like && pieces[piece.like.piece - 1]
  return like && like.to - like.from === piece.to - piece.from ? differencesOf(tune, doc, piece, like) : []
}

/** Names of what places sound, spelled in the tune's first key. */
function namesOf(
  tune: TuneDoc,
  { setup, transposed }: ArrangementDoc,
  names: LessonSettings['names'],
): NameOf | undefined {
  if (names === 'none') return undefined
  const key = transposeKey(tune.measures[0]!.key, transposed)
  return (string, fret) => noteIn(names, spellInKey(pitchAt(setup, { string, fret }), key))
}

/** What is said of a piece: what it is like and what it has otherwise, how it is practised, what sounds odd slowly. */
export interface PieceWords {
  readonly title: string
  readonly like?: string
  readonly differences: readonly string[]
  readonly recipe: readonly string[]
  readonly odd: readonly string[]
}

export function pieceWords(lesson: Lesson, piece: Piece): PieceWords {
  const { phrasing, tune, doc } = lesson
  const { differs, odd } = phrasing.paper
  const { like } = piece
  return {
    title: pieceText(piece, phrasing),
    ...(like
      ? { like: fill(like.differs.length === 0 ? differs.same : differs.like, { piece: like.piece }) }
      : {}),
    differences: differencesIn(lesson, piece).map((d) => differenceText(d, phrasing)),
    recipe: recipeText(recipeIn(lesson, piece), phrasing),
    odd: oddSlowly(tune, doc, piece).map((o) => odd[o]),
  }
}

/** What to take care of: what is heavy in this tab first, then what holds for all. */
export function cautionWords({ cautions, phrasing }: Lesson): string[] {
  const words = phrasing.paper.cautions
  return [...cautions.map((c) => words[c]), words.general, words.clinician]
}
