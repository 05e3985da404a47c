import { mod12, pitchClass } from '../../music/pitch/pitch.ts'
import type { Key } from '../../music/pitch/key.ts'
import type { MelodyNote, Timeline } from '../../document/form/timeline.ts'
import type { TuneDoc } from '../../document/tune.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import { firstAtOrAfter } from '../../music/time/firstAtOrAfter.ts'
import { segmentAt, type HarmonySegment } from './harmonyLine.ts'

/**
 * A moment at which the music comes to rest: the last melody note over the last chord. There the root and the chord are struck
 * once, and until the end nothing but the melody is. Common practice, no source.
 */
export interface Ending {
  readonly at: Ticks
  readonly until: Ticks
  /** Index of the harmony segment. */
  readonly segment: number
}

/** The end of the tune, and the ends of its sections that rest on the tonic. */
export function endingsOf(
  tune: Pick<TuneDoc, 'measures' | 'sections'>,
  timeline: Timeline,
  melody: readonly MelodyNote[],
  harmony: readonly HarmonySegment[],
  keys: readonly Key[],
): Ending[] {
  const sections = new Set(tune.sections.map((s) => s.measure))
  return tune.measures.flatMap(({ barline, repeatEnd }, m): Ending[] => {
    const until = timeline.starts[m]! + tune.measures[m]!.length
    const isLast = m === tune.measures.length - 1
    const next = tune.measures[m + 1]
    const ends =
      barline === 'double' || barline === 'final' || repeatEnd > 1 || (next && sections.has(next.id))
    if (!isLast && !ends) return []
    const note = melody[firstAtOrAfter(melody, until) - 1]
    // A section ends in its last measure, a tune may let its last note sound on over bars.
    if (!note || (!isLast && note.start < timeline.starts[m]!)) return []
    const segment = segmentAt(harmony, note.start)
    const { shape, sounding } = harmony[segment] ?? {}
    if (!shape || !sounding) return []
    const atHome = mod12(pitchClass(sounding.root) - pitchClass(keys[m]!.tonic)) === 0
    return isLast || atHome ? [{ at: note.start, until, segment }] : []
  })
}

/** The ending that a time lies in, its own moment included. */
export const endingAt = (endings: readonly Ending[], at: Ticks): Ending | undefined =>
  endings.find((e) => at >= e.at && at < e.until)
