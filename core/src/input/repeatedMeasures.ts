import type { Jump, Measure } from '../document/tune.ts'
import { measureLength, type Metre } from '../music/time/metre.ts'
import type { Key } from '../music/pitch/key.ts'
import type { Ticks } from '../music/time/ticks.ts'
import type { Id } from '../document/ids.ts'

/** A measure as its signs stand in a text, before its repeats are settled. */
export interface MeasureDraft {
  readonly id: Id
  readonly length: Ticks
  readonly metre: Metre
  readonly key: Key
  readonly repeatStart: boolean
  /** True where a repeat sign ends it. */
  readonly repeats: boolean
  /** How often the text says that it is played. */
  readonly times?: number
  readonly barline: Measure['barline']
  readonly endings: readonly number[]
  readonly segno: boolean
  readonly coda: boolean
  readonly fine: boolean
  readonly jump?: Jump
}

/** Settles repeats once all endings of a group are known. */
export function finishMeasures(drafts: readonly MeasureDraft[]): Measure[] {
  return drafts.map((d, i) => ({
    id: d.id,
    nominal: measureLength(d.metre),
    length: d.length,
    metre: d.metre,
    key: d.key,
    repeatStart: d.repeatStart,
    repeatEnd: d.repeats ? (d.times ?? timesPlayed(drafts, i)) : 1,
    barline: i === drafts.length - 1 && d.barline === 'none' ? 'single' : d.barline,
    endings: d.endings,
    ...(d.segno ? { segno: true } : {}),
    ...(d.coda ? { coda: true } : {}),
    ...(d.fine ? { fine: true } : {}),
    ...(d.jump ? { jump: d.jump } : {}),
    provenance: 'source',
  }))
}

/**
 * How often the passage that ends at this repeat sign is played: as often as its group of endings has passes. A lone
 * ending is followed by one more pass without it. A sign at the group's last pass only closes the group.
 */
function timesPlayed(drafts: readonly MeasureDraft[], at: number): number {
  const own = drafts[at]!.endings
  if (own.length === 0) return 2
  let from = at
  while (from > 0 && drafts[from - 1]!.endings.length > 0) from--
  let to = at
  while (to + 1 < drafts.length && drafts[to + 1]!.endings.length > 0) to++
  const group = drafts.slice(from, to + 1)
  const alone = group.every((m) => m.endings.join() === own.join())
  const last = Math.max(...group.flatMap((m) => m.endings))
  return alone ? last + 1 : last
}
