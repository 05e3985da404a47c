import { WHOLE, type Ticks } from '../music/time/ticks.ts'
import { writtenValue } from '../music/time/writtenValue.ts'
import type { Duration } from './tune.ts'

/** A length outside tuplets with its written value. @example durationOf(WHOLE / 4) // { ticks: 10080, base: 4, dots: 0 } */
export const durationOf = (ticks: Ticks): Duration => ({ ticks, ...writtenValue(ticks / WHOLE) })
