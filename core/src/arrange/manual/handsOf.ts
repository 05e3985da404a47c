import type { Region } from '../../document/arrangement.ts'
import { measureAt, type Timeline } from '../../document/form/timeline.ts'
import { regionAt } from '../../document/regions.ts'
import type { TuneDoc } from '../../document/tune.ts'
import { withKindHand, type Setup } from '../../instrument/setup.ts'
import type { Ticks } from '../../music/time/ticks.ts'

/** The hand that plays what stands at a time: one that is not to stretch, where its section says so. */
export function handsOf(
  tune: TuneDoc,
  setup: Setup,
  regions: readonly Region[],
  timeline: Timeline,
): (at: Ticks) => Setup {
  const kind = withKindHand(setup)
  const hands = tune.measures.map((m) =>
    regions[regionAt(tune, regions, m.id)]?.without?.includes('stretch') ? kind : setup,
  )
  return (at) => hands[measureAt(timeline, at)] ?? setup
}
