import type { MeasureEffort } from '../../hand/effort/effort.ts'
import type { ArrangementDoc } from '../../document/arrangement.ts'
import type { TuneDoc } from '../../document/tune.ts'
import { secondsOf } from '../../music/time/ticks.ts'
import type { LearningStep } from './learningOrder.ts'
import type { Piece, Unit } from './piece.ts'
import { piecesOf } from './pieces.ts'
import { progressOf, type LogEntry } from './practiceLog.ts'
import type { PracticeMethod } from './practiceMethod.ts'
import { pieceTicks, recipeOf } from './recipe.ts'

/** What a practice log tells of a student: what is clean at which tempo, and how many tries a clean one takes. */
export interface Student {
  /** Quarter notes a minute at which a piece was clean, by its number in the lesson's own unit. */
  readonly clean: ReadonlyMap<number, number>
  /** True where the tune was played clean as a whole. */
  readonly whole: boolean
  /** Tries of a clean repetition; absent until enough was logged to tell. */
  readonly tries?: number
}

/** A log with the unit in which its pieces are numbered. */
export interface LogOf {
  readonly unit: Unit
  readonly entries: readonly LogEntry[]
}

/** Minutes of practice from which a student's tries are counted, and what is taken for possible. */
const TRIES = { minutes: 10, least: 1, most: 10 }

/**
 * Reads a student out of a log. Pieces of another unit than the lesson's are known where all that they overlap is.
 * @param pieces the lesson's own
 */
export function studentOf(
  tune: TuneDoc,
  doc: ArrangementDoc,
  pieces: readonly Piece[],
  effort: readonly MeasureEffort[],
  way: PracticeMethod,
  { unit, entries }: LogOf,
): Student {
  const logged = piecesOf(tune, doc, unit)
  const progress = progressOf(entries)
  const best = new Map(progress.flatMap((p) => (p.bestBpm === undefined ? [] : [[p.piece, p.bestBpm]])))
  const clean = new Map<number, number>()
  for (const piece of pieces) {
    const tempos = logged.filter((l) => overlap(l, piece)).map((l) => best.get(l.number))
    const known = tempos.filter((bpm) => bpm !== undefined)
    if (known.length > 0 && known.length === tempos.length) clean.set(piece.number, Math.min(...known))
  }
  const tries = triesIn(tune, doc, logged, effort, way, entries)
  return { clean, whole: best.has(0), ...(tries === undefined ? {} : { tries }) }
}

const at = (measure: number, tick: number) => measure * 1e9 + tick

/** True where two pieces share a moment. */
function overlap(a: Piece, b: Piece): boolean {
  const start = (p: Piece) => at(p.from, p.tick ?? 0)
  const end = (p: Piece) => (p.until === undefined ? at(p.to + 1, 0) : at(p.to, p.until))
  return start(a) < end(b) && start(b) < end(a)
}

/**
 * Tries of a clean repetition: the minutes at the pieces that got clean, against what the tempos up to there take of clean
 * repetitions alone.
 */
function triesIn(
  tune: TuneDoc,
  doc: ArrangementDoc,
  pieces: readonly Piece[],
  effort: readonly MeasureEffort[],
  way: PracticeMethod,
  entries: readonly LogEntry[],
): number | undefined {
  let spent = 0
  let needed = 0
  for (const { piece: number, minutes, bestBpm } of progressOf(entries)) {
    const piece = pieces[number - 1]
    if (!piece || bestBpm === undefined) continue
    const { tempos } = recipeOf(tune, doc, piece, effort, way)
    const done = tempos.filter((bpm, i) => i === 0 || bpm <= bestBpm)
    const once = done.reduce((sum, bpm) => sum + way.clean * secondsOf(pieceTicks(tune, piece), bpm), 0)
    spent += minutes * 60
    needed += once
  }
  if (spent < TRIES.minutes * 60 || needed === 0) return undefined
  return Math.min(TRIES.most, Math.max(TRIES.least, Math.round((10 * spent) / needed) / 10))
}

/**
 * What of an order is still to be learnt: no piece that is known, no change within one, no join that a later piece was
 * built upon.
 * @param whole true where the tune was played clean as a whole
 */
export function leftToLearn(
  order: readonly LearningStep[],
  known: readonly Piece[],
  whole: boolean,
): LearningStep[] {
  const last = Math.max(0, ...known.map((p) => p.number))
  return order.filter((step) => {
    switch (step.kind) {
      case 'change':
        return !known.some((p) => p.from <= step.spot.measure && step.spot.measure <= p.to)
      case 'piece':
        return !known.includes(step.piece)
      case 'join':
        return !(whole || (known.includes(step.from) && step.to.number < last))
      case 'whole':
        return true
    }
  })
}
