import { widestReach } from '../../hand/grip/handRules.ts'
import { pressedOf } from '../../hand/grip/pressed.ts'
import type { Grip } from '../../document/tab.ts'
import type { Setup } from '../../instrument/setup.ts'

/** Past this fret a capo leaves little neck. Common practice, no source. */
export const HIGHEST_CAPO = 7

/** The widest stretch of some grips with the capo at a fret, the shapes kept (all sounds higher). */
export interface CapoStretch {
  readonly capo: number
  readonly mm: number
}

/**
 * What a higher capo makes of a stretch, fret by fret: the same shapes on a shorter string. For a few weeks' help, to be
 * brought down again.
 */
export function stretchByCapo(setup: Setup, grips: readonly Pick<Grip, 'pressed'>[]): CapoStretch[] {
  const now = setup.capo[0]!
  const result: CapoStretch[] = []
  for (let capo = now; capo <= Math.max(now, HIGHEST_CAPO); capo++) {
    const moved = { ...setup, capo: setup.capo.map(() => capo) }
    const mm = grips.map((g) => widestReach(moved, pressedOf(g.pressed)))
    result.push({ capo, mm: Math.round(Math.max(0, ...mm)) })
  }
  return result
}
