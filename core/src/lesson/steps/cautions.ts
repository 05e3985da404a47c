import type { MeasureEffort } from '../../hand/effort/effort.ts'
import type { ArrangementDoc } from '../../document/arrangement.ts'

/** What in a tab is heavy on a hand: fingers across strings, stretches, speed, pushed strings. Never a diagnosis. */
export const CAUTIONS = ['barre', 'stretch', 'speed', 'bend', 'bottle'] as const
export type Caution = (typeof CAUTIONS)[number]

/** From where on a caution is said. Common practice, no source. */
const HEAVY = {
  /** Share of grips with a finger across strings. */
  barres: 0.12,
  /** Millimetres beyond what this hand holds without strain, in one measure. */
  stretchMm: 8,
  /** Share of measures whose ceiling lies under the goal. */
  tooFast: 0.1,
  bends: 2,
}

/** The cautions that apply to a tab at its goal tempo; none where it is easy on the hand. */
export function cautionsOf(
  { base }: Pick<ArrangementDoc, 'base'>,
  effort: readonly MeasureEffort[],
  goalBpm: number,
): Caution[] {
  const held = base.grips.filter((g) => g.pressed.length > 0)
  const barres = held.filter((g) => new Set(g.pressed.map((p) => p.finger)).size < g.pressed.length)
  const stretched = effort.some((m) =>
    m.parts.some((p) => p.part === 'stretch' && p.value >= HEAVY.stretchMm),
  )
  const fast = effort.filter((m) => m.ceiling && m.ceiling.bpm < goalBpm)
  const bends = base.notes.filter((n) => n.bend !== undefined)
  const applies: Readonly<Record<Caution, boolean>> = {
    barre: held.length > 0 && barres.length / held.length >= HEAVY.barres,
    stretch: stretched,
    speed: effort.length > 0 && fast.length / effort.length >= HEAVY.tooFast,
    bend: bends.length >= HEAVY.bends,
    bottle: base.notes.some((n) => n.attack === 'bottle'),
  }
  return CAUTIONS.filter((c) => applies[c])
}
