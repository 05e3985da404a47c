import { WHOLE, type Ticks } from '../../music/time/ticks.ts'

/** Ticks of a share of a whole note inside a tuplet of `actual` in the time of `normal`; `exact` is false if rounded. */
export function ticksOfShare(share: number, actual = 1, normal = 1): { ticks: Ticks; exact: boolean } {
  const exactTicks = (share * WHOLE * normal) / actual
  const ticks = Math.round(exactTicks)
  return { ticks, exact: Math.abs(exactTicks - ticks) < 1e-6 }
}
