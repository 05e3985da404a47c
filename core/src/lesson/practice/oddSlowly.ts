import { ticksAt, timelineOf } from '../../document/form/timeline.ts'
import type { ArrangementDoc } from '../../document/arrangement.ts'
import { isArrival } from '../../document/tab.ts'
import type { TuneDoc } from '../../document/tune.ts'
import { pitchAt } from '../../instrument/setup.ts'
import { beatLength } from '../../music/time/metre.ts'
import type { Piece } from './piece.ts'

/** Why a passage sounds odd slowly and is right: quick ornaments; notes that rub for a moment. */
export type OddSlowly = 'ornaments' | 'rub'

/** Semitones apart at which two notes rub. */
const RUBS = new Set([1, 11, 13])

/** What in a piece sounds odd while it is played slowly. */
export function oddSlowly(
  tune: TuneDoc,
  { base, setup }: Pick<ArrangementDoc, 'base' | 'setup'>,
  piece: Piece,
): OddSlowly[] {
  const timeline = timelineOf(tune.measures)
  const inside = new Set(tune.measures.slice(piece.from, piece.to + 1).map((m) => m.id))
  const notes = base.notes.filter((n) => inside.has(n.pos.measure))
  const beat = beatLength(tune.measures[piece.from]!.metre)
  const quick = notes.some((n) => n.graces !== undefined || (isArrival(n.attack) && n.dur.ticks < beat / 2))
  const rub = notes.some((a) =>
    notes.some((b) => {
      const [from, at] = [ticksAt(timeline, a.pos), ticksAt(timeline, b.pos)]
      if (a === b || from > at || from + a.dur.ticks <= at || a.attack === 'muted' || b.attack === 'muted')
        return false
      const together = Math.min(from + a.dur.ticks, at + b.dur.ticks) - at
      return together <= beat && RUBS.has(Math.abs(pitchAt(setup, a.place) - pitchAt(setup, b.place)))
    }),
  )
  return [...(quick ? (['ornaments'] as const) : []), ...(rub ? (['rub'] as const) : [])]
}
