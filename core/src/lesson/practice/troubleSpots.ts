import type { CeilingReason, MeasureEffort } from '../../hand/effort/effort.ts'
import { measureAt, ticksAt, timelineOf } from '../../document/form/timeline.ts'
import type { ArrangementDoc } from '../../document/arrangement.ts'
import type { Grip } from '../../document/tab.ts'
import type { TuneDoc } from '../../document/tune.ts'
import type { Ticks } from '../../music/time/ticks.ts'

/** A change that gives out first when its measure gets faster. */
export interface TroubleSpot {
  /** Index of the measure, and where in it the hand must have arrived. */
  readonly measure: number
  readonly tick: Ticks
  /** Quarter notes a minute up to which this hand should manage it, and what gives out there. */
  readonly bpm: number
  readonly reason: CeilingReason
  readonly before: Grip
  readonly after: Grip
}

/** The hardest change of every measure, the hardest first; a change between the same grips stands there once. */
export function troubleSpots(
  tune: TuneDoc,
  { base }: Pick<ArrangementDoc, 'base'>,
  effort: readonly MeasureEffort[],
): TroubleSpot[] {
  const timeline = timelineOf(tune.measures)
  const grips = base.grips
    .map((grip) => ({ grip, at: ticksAt(timeline, grip.pos) }))
    .sort((a, b) => a.at - b.at)
  // Measures come in order, and so do their ceilings.
  let next = 0
  const spots = effort.flatMap(({ ceiling }): TroubleSpot[] => {
    if (!ceiling) return []
    while (next < grips.length && grips[next]!.at <= ceiling.at) next++
    const [before, after] = [grips[next - 2], grips[next - 1]]
    if (!before || !after) return []
    const measure = measureAt(timeline, ceiling.at)
    return [
      {
        measure,
        tick: ceiling.at - timeline.starts[measure]!,
        bpm: ceiling.bpm,
        reason: ceiling.reason,
        before: before.grip,
        after: after.grip,
      },
    ]
  })
  const seen = new Set<string>()
  return spots
    .sort((a, b) => a.bpm - b.bpm || a.measure - b.measure)
    .filter((s) => {
      const key = `${s.reason} ${heldText(s.before)} > ${heldText(s.after)}`
      if (seen.has(key)) return false
      seen.add(key)
      return true
    })
}

const heldText = (g: Grip): string =>
  g.pressed
    .map((p) => `${p.string}.${p.fret}.${p.finger}`)
    .sort()
    .join()
