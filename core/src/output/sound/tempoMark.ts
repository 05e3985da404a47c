import type { Ticks } from '../../music/time/ticks.ts'

/** Quarter notes a minute from a time on. */
export interface TempoMark {
  readonly at: Ticks
  readonly bpm: number
}
