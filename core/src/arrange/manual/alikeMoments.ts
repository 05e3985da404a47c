import type { Timeline } from '../../document/form/timeline.ts'
import type { TuneDoc } from '../../document/tune.ts'
import { isStruckAt, type Moment } from './moments.ts'

/**
 * Moments of measures that play what an earlier measure plays, each with the moment of the first such measure.
 * @param offset index of the first of these moments among all
 */
export function alikeMoments(
  moments: readonly Moment[],
  tune: TuneDoc,
  { starts }: Timeline,
  offset: number,
): Map<number, number> {
  const inMeasure = new Map<number, number[]>()
  moments.forEach((m, i) => inMeasure.set(m.measure, [...(inMeasure.get(m.measure) ?? []), i]))
  const firstOf = new Map<string, readonly number[]>()
  const alike = new Map<number, number>()
  for (const [measure, own] of inMeasure) {
    const start = starts[measure]!
    const content = own.map((i) => contentOf(moments[i]!, start)).join(';')
    const key = `${tune.measures[measure]!.length} ${content}`
    const first = firstOf.get(key)
    if (!first) firstOf.set(key, own)
    else own.forEach((i, k) => alike.set(i + offset, first[k]! + offset))
  }
  return alike
}

function contentOf(moment: Moment, start: number): string {
  const notes = moment.sounding.map((s) => {
    const { place, attack, dur } = s.note
    return [
      isStruckAt(moment, s) ? attack : 'held',
      place.string,
      place.fret,
      place.harmonic,
      dur.ticks,
    ].join(' ')
  })
  return `${moment.at - start}: ${notes.sort().join()}`
}
