import { beatLength, inFullMeasure, isCompound } from '../music/time/metre.ts'
import { QUARTER, type Ticks } from '../music/time/ticks.ts'
import type { Region } from './arrangement.ts'
import { FEEL_SHARE, type Feel } from './feel.ts'
import { ticksAt, type Timeline } from './form/timeline.ts'
import type { Id } from './ids.ts'
import { regionAt } from './regions.ts'
import type { TabNote } from './tab.ts'
import type { Measure, TuneDoc } from './tune.ts'

/** The feel of each measure, by index; undefined where it is straight. Measures in threes have their own lilt. */
export function feelOfMeasures(
  tune: Pick<TuneDoc, 'measures'>,
  regions: readonly Region[],
): readonly (Feel | undefined)[] {
  if (regions.every((r) => r.feel === undefined)) return tune.measures.map(() => undefined)
  return tune.measures.map((m) => (canSwing(m) ? regions[regionAt(tune, regions, m.id)]?.feel : undefined))
}

/** True where beats are halved: not in 6/8 and the like. */
export const canSwing = ({ metre }: Pick<Measure, 'metre'>): boolean => !isCompound(metre) && metre.den <= 4

/** Where another feel begins: what is to be written over the measure; `straight` where the swing ends. */
export function feelMarks(
  tune: Pick<TuneDoc, 'measures'>,
  regions: readonly Region[],
): ReadonlyMap<Id, Feel | 'straight'> {
  const feels = feelOfMeasures(tune, regions)
  const marks = new Map<Id, Feel | 'straight'>()
  tune.measures.forEach((m, i) => {
    const [now, before] = [feels[i], i === 0 ? undefined : feels[i - 1]]
    if (now !== before) marks.set(m.id, now ?? 'straight')
  })
  return marks
}

/** A beat that is not halved evenly, on the written time line. */
export interface SwungBeat {
  readonly from: Ticks
  readonly half: Ticks
  readonly to: Ticks
  /** Share of its time that the first half takes. */
  readonly share: number
}

/**
 * The beats that swing: quarters in which nothing is struck but at halves and quarters of them. A triplet is what it is.
 */
export function swungBeats(
  { measures }: Pick<TuneDoc, 'measures'>,
  feels: readonly (Feel | undefined)[],
  timeline: Timeline,
  notes: readonly Pick<TabNote, 'pos'>[],
): SwungBeat[] {
  if (feels.every((f) => f === undefined)) return []
  const onsets = notes.map((n) => ticksAt(timeline, n.pos))
  const uneven = new Set<number>()
  const starts = (i: number) => timeline.starts[i]! - inFullMeasure(measures[i]!, 0)
  measures.forEach((m, i) => {
    if (feels[i] === undefined) return
    const from = timeline.starts[i]!
    for (const at of onsets)
      if (at >= from && at < from + m.length && (at - starts(i)) % (QUARTER / 4) !== 0)
        uneven.add(starts(i) + Math.floor((at - starts(i)) / QUARTER) * QUARTER)
  })
  return measures.flatMap((m, i) => {
    const feel = feels[i]
    if (feel === undefined) return []
    const [begin, end] = [timeline.starts[i]!, timeline.starts[i]! + m.length]
    const beats: SwungBeat[] = []
    const step = Math.min(QUARTER, beatLength(m.metre))
    for (let from = starts(i); from < end; from += step)
      if (from >= begin && from + step <= end && !uneven.has(from))
        beats.push({ from, half: from + step / 2, to: from + step, share: FEEL_SHARE[feel] })
    return beats
  })
}
