import { USUAL_TEMPO } from '../../music/time/tempo.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import type { TuneDoc } from '../tune.ts'
import { ticksAt, type Timeline } from './timeline.ts'

/** Quarter notes a minute from a time on. */
export interface TempoChange {
  readonly at: Ticks
  readonly bpm: number
}

/** A tune's tempos on its written time line, in order. */
export const tempoMap = ({ tempos }: Pick<TuneDoc, 'tempos'>, timeline: Timeline): TempoChange[] =>
  tempos.map((t) => ({ at: ticksAt(timeline, t.pos), bpm: t.bpm })).sort((a, b) => a.at - b.at)

/** Quarter notes a minute at a time: before the first change that one's, and the usual ones where there is none. */
export const bpmAt = (map: readonly TempoChange[], at: Ticks): number =>
  (map.findLast((t) => t.at <= at) ?? map[0])?.bpm ?? USUAL_TEMPO
