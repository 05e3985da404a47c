import { groupBy } from 'es-toolkit'
import type { ArrangementDoc } from '../../document/arrangement.ts'
import { between } from '../../document/form/between.ts'
import { measureAt, type Timeline } from '../../document/form/timeline.ts'
import type { TuneDoc } from '../../document/tune.ts'
import type { Stroke } from '../../instrument/hand.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import { beatCount, type Count } from './beatCount.ts'

/** What the picking hand strikes at one moment. */
export interface StruckMoment {
  readonly count: Count
  /** Lowest string first. */
  readonly strings: readonly number[]
  /** The direction of a strum over several strings; absent where strings are picked. */
  readonly stroke?: Stroke
  readonly accent?: true
}

/** Strings that are struck together in one direction are a strum from here on. */
const STRUM_STRINGS = 3

/** What is struck from one moment to another, but no further than the end of the first one's measure. */
export function struckFrom(
  { measures }: Pick<TuneDoc, 'measures'>,
  { base }: Pick<ArrangementDoc, 'base'>,
  timeline: Timeline,
  from: Ticks,
  to: Ticks,
): StruckMoment[] {
  const index = measureAt(timeline, from)
  const measure = measures[index]!
  const start = timeline.starts[index]!
  const end = Math.min(to, start + measure.length)
  const struck = between(base.notes, timeline, from, end).filter((n) => n.right !== 'none')
  return Object.values(groupBy(struck, (n) => n.pos.tick)).map((notes): StruckMoment => {
    const { right, pos } = notes[0]!
    const one = notes.every((n) => n.right === right)
    const strum = one && notes.length >= STRUM_STRINGS && (right === 'down' || right === 'up')
    return {
      count: beatCount(measure, pos.tick),
      strings: notes.map((n) => n.place.string).sort((a, b) => b - a),
      ...(strum ? { stroke: right } : {}),
      ...(notes.some((n) => n.accent) ? { accent: true } : {}),
    }
  })
}

/** True for what is mostly strummed. */
export const isStrummed = (struck: readonly StruckMoment[]): boolean =>
  struck.length > 0 && 2 * struck.filter((s) => s.stroke).length > struck.length
