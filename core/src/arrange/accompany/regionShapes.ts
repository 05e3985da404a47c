import type { Region } from '../../document/arrangement.ts'
import type { School } from '../../document/school.ts'
import type { Setup } from '../../instrument/setup.ts'
import type { HarmonySegment } from '../plan/harmonyLine.ts'
import type { Plan } from '../plan/plan.ts'
import { progressionShapes, type SegmentShape, type ShapeRules } from './progressionShapes.ts'

/** The shapes that a section holds, by the segment of the harmony, and the segments whose chord this hand cannot hold anywhere. */
export interface RegionShapes {
  readonly shapes: ReadonlyMap<number, SegmentShape>
  readonly lacking: readonly HarmonySegment[]
}

/**
 * One shape for each chord of a section, by the shortest path, as its level and its school have them.
 * @param ends of the section
 */
export function regionShapes(
  setup: Setup,
  { harmony, pins }: Pick<Plan, 'harmony' | 'pins'>,
  { style, level, without }: Region,
  { repeats }: School,
  ends: { readonly from: number; readonly to: number },
  full: ShapeRules['full'],
): RegionShapes {
  const segments = harmony.flatMap((h, i) => (h.end > ends.from && h.start < ends.to ? [{ h, i }] : []))
  const found = progressionShapes(
    setup,
    segments.map(({ h }) => h),
    level,
    pins,
    {
      alike: repeats === 'alike',
      barres: !without?.includes('barre'),
      stretches: !without?.includes('stretch'),
      full,
      strummed: style !== 'picking',
    },
  )
  return {
    shapes: new Map(segments.flatMap(({ i }, k) => (found[k] ? [[i, found[k]] as const] : []))),
    lacking: segments.flatMap(({ h }, k) => (h.shape && !found[k] ? [h] : [])),
  }
}
