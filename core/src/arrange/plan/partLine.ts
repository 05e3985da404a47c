import { melodyOf, type Timeline } from '../../document/form/timeline.ts'
import type { TuneDoc } from '../../document/tune.ts'
import { midiOf } from '../../music/pitch/pitch.ts'
import type { PlannedBass } from './bassLine.ts'

/**
 * The second voice of the source as obligations beside the melody: two parts into one instrument. It keeps its own
 * pitches; what the hand cannot hold with the melody is left out by the solver and listed.
 * @param takes true for the measures in which both parts are played
 */
export function partLine(
  tune: TuneDoc,
  timeline: Timeline,
  transposed: number,
  takes: (measure: number) => boolean,
): PlannedBass[] {
  const notes = melodyOf(tune, timeline, 1).filter((n) => takes(n.measure))
  return notes.map((n, i) => ({
    start: n.start,
    until: Math.min(n.start + n.duration, notes[i + 1]?.start ?? timeline.length),
    kind: 'part',
    change: false,
    firm: false,
    inherited: false,
    segment: -1,
    part: { midi: midiOf(n.pitch) + transposed, sourceId: n.sourceId },
  }))
}
