import type { Ticks } from '../../music/time/ticks.ts'

/** Quarter notes a minute from a time on. */
export interface TempoChange {
  readonly at: Ticks
  readonly bpm: number
}
