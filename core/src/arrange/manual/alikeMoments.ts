import { repeatedItems, type MeasureContent } from '../../document/form/repeated.ts'
import type { Timeline } from '../../document/form/timeline.ts'
import type { TuneDoc } from '../../document/tune.ts'
import type { Turns } from '../../turns.ts'
import { isStruckAt, type Moment } from './moments.ts'

/**
 * Moments of measures that play what an earlier measure plays, each with the moment of the first such measure.
 * @param offset index of the first of these moments among all
 */
export const findingAlike = (
  moments: readonly Moment[],
  tune: TuneDoc,
  timeline: Timeline,
  offset: number,
): Turns<Map<number, number>> => repeatedItems(measuresOf(moments, tune, timeline, offset))

function* measuresOf(
  moments: readonly Moment[],
  tune: TuneDoc,
  { starts }: Timeline,
  offset: number,
): Iterable<MeasureContent> {
  for (let from = 0, to; from < moments.length; from = to) {
    const { measure } = moments[from]!
    to = from + 1
    while (moments[to]?.measure === measure) to++
    const content = moments.slice(from, to).map((m) => contentOf(m, starts[measure]!))
    yield {
      from: from + offset,
      to: to + offset,
      content: `${tune.measures[measure]!.length} ${content.join(';')}`,
    }
  }
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
