import { present } from '../../invariant.ts'
import type { CeilingReason, MeasureEffort } from '../../hand/effort/effort.ts'
import { ticksAt, timelineOf } from '../../document/form/timeline.ts'
import type { ArrangementDoc } from '../../document/arrangement.ts'
import type { TuneDoc } from '../../document/tune.ts'
import { USUAL_TEMPO } from '../../music/time/tempo.ts'
import { secondsOf } from '../../music/time/ticks.ts'
import type { Piece } from './piece.ts'
import { USUAL_WAY, type PracticeMethod } from './practiceMethod.ts'

/** How a piece is practised: a loop, the tempos on the way to the goal, and what it takes. Tempos are quarter notes a minute. */
export interface Recipe {
  readonly goalBpm: number
  /** What this hand should manage, its measure, and what gives out there; absent where nothing does. */
  readonly ceiling?: { readonly bpm: number; readonly reason: CeilingReason; readonly measure: number }
  /** Rising tempos, the goal last. Those over the ceiling are for later. */
  readonly tempos: readonly number[]
  readonly clean: number
  readonly seconds: number
}

/** The tempos up to what this hand should manage; those over it are for later. */
export function temposWithin({ tempos, ceiling }: Pick<Recipe, 'tempos' | 'ceiling'>): readonly number[] {
  const within = tempos.filter((bpm) => bpm <= (ceiling?.bpm ?? Infinity))
  return within.length > 0 ? within : tempos.slice(0, 1)
}

/** Tempos on the way to the goal at most, and by how much each rises at least. */
const RUNGS = 6
const RISE = 4

/** Seconds of rest and talk at each tempo. Common practice, no source. */
const PAUSE_S = 20

/** What is to be reached for now: the goal, or what the hand should manage where that is less. */
export const targetOf = (goalBpm: number, ceiling: { readonly bpm: number } | undefined): number =>
  Math.min(goalBpm, ceiling?.bpm ?? goalBpm)

/** The tempo that is to be reached, in quarter notes a minute: the goal, or the tune's own. */
export const goalOf = (tune: TuneDoc, { goalBpm }: Pick<ArrangementDoc, 'goalBpm'>): number =>
  Math.round(goalBpm ?? tune.tempos[0]?.bpm ?? USUAL_TEMPO)

/**
 * The tempos at which a piece is practised, from a share of the goal up, with the time that it takes this student.
 * @param clean quarter notes a minute at which it is clean already: the tempos begin there
 */
export function recipeOf(
  tune: TuneDoc,
  doc: Pick<ArrangementDoc, 'goalBpm'>,
  piece: Piece,
  effort: readonly MeasureEffort[],
  way: PracticeMethod = USUAL_WAY,
  clean = 0,
): Recipe {
  const goalBpm = goalOf(tune, doc)
  const lowest = effort
    .slice(piece.from, piece.to + 1)
    .filter((m) => m.ceiling)
    .sort((a, b) => present(a.ceiling).bpm - present(b.ceiling).bpm)[0]
  const ceiling = lowest?.ceiling && {
    bpm: lowest.ceiling.bpm,
    reason: lowest.ceiling.reason,
    measure: lowest.measure,
  }
  const start = Math.max(20, Math.round(targetOf(goalBpm, ceiling) * way.startShare), Math.round(clean))
  const tempos = temposTo(start, goalBpm)
  const ticks = pieceTicks(tune, piece)
  const within = tempos.filter((bpm) => bpm <= (ceiling?.bpm ?? Infinity))
  const seconds = within.reduce(
    (sum, bpm) => sum + way.clean * way.tries * secondsOf(ticks, bpm) + PAUSE_S,
    0,
  )
  return { goalBpm, ...(ceiling ? { ceiling } : {}), tempos, clean: way.clean, seconds: Math.round(seconds) }
}

function temposTo(start: number, goal: number): number[] {
  if (start >= goal) return [goal]
  const rise = Math.max(RISE, (goal - start) / (RUNGS - 1))
  const tempos: number[] = []
  for (let bpm = start; Math.round(bpm) < goal; bpm += rise) tempos.push(Math.round(bpm))
  return [...tempos, goal]
}

/** Length of one pass through a piece. */
export function pieceTicks(tune: TuneDoc, { from, to, tick = 0, until }: Piece): number {
  const timeline = timelineOf(tune.measures)
  const last = tune.measures[to]!
  return (
    ticksAt(timeline, { measure: last.id, tick: until ?? last.length }) -
    ticksAt(timeline, { measure: tune.measures[from]!.id, tick })
  )
}
