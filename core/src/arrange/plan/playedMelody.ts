import { melodyOf, type MelodyNote, type Timeline } from '../../document/form/timeline.ts'
import type { Region } from '../../document/arrangement.ts'
import { isAccompaniment, type Style } from '../../document/style.ts'
import type { TuneDoc } from '../../document/tune.ts'

/** The style of a measure that no region names. */
export const USUAL_STYLE = 'melody-bass'

/** Who has the melody of a style: a singer, the bottleneck, the low strings, or the fretting hand where it likes. */
export const melodyKind = (style: Style): 'sung' | 'slid' | 'low' | 'fingered' =>
  isAccompaniment(style) ? 'sung' : (OWN_WAYS[style] ?? 'fingered')

const OWN_WAYS: Readonly<Partial<Record<Style, 'slid' | 'low'>>> = { bottleneck: 'slid', 'bass-tune': 'low' }

/** The region of each measure. */
export function regionIndex(
  tune: TuneDoc,
  timeline: Timeline,
  regions: readonly Region[],
): (m: number) => Region | undefined {
  const byMeasure: (Region | undefined)[] = tune.measures.map(() => undefined)
  for (const region of regions) {
    const from = timeline.indexOf.get(region.from) ?? 0
    const to = timeline.indexOf.get(region.to) ?? tune.measures.length - 1
    for (let i = from; i <= to; i++) byMeasure[i] = region
  }
  return (m) => byMeasure[m]
}

/** What of a tune is played on the instrument: not the measures in which it is sung. */
export interface PlayedMelody {
  readonly notes: readonly MelodyNote[]
  /** The regions that play it. */
  readonly solo: readonly Region[]
}

export function playedMelody(tune: TuneDoc, timeline: Timeline, regions: readonly Region[]): PlayedMelody {
  const ruleOf = regionIndex(tune, timeline, regions)
  return {
    notes: melodyOf(tune, timeline).filter(
      (n) => melodyKind(ruleOf(n.measure)?.style ?? USUAL_STYLE) !== 'sung',
    ),
    solo: regions.filter((r) => !isAccompaniment(r.style)),
  }
}
