import { QUARTER, type Ticks } from '../music/time/ticks.ts'
import type { WrittenNote } from './finishedTab.ts'

/** Ticks as quarter notes, to three places. */
export const quarters = (ticks: Ticks): number => Number((ticks / QUARTER).toFixed(3))

/** How long a note is written, and how long the hand of the page holds it, in quarter notes. */
export const heldFor = ({ string, duration, ring }: WrittenNote) => ({
  string,
  wanted: quarters(duration),
  held: quarters(ring),
})
