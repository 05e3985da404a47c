import { firstAtOrAfter } from '../../music/time/firstAtOrAfter.ts'
import type { MelodyNote, Timeline } from '../../document/form/timeline.ts'
import type { Measure } from '../../document/tune.ts'
import { beatLength, beatStarts, isCompound, missingHead, strongBeats } from '../../music/time/metre.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import type { VoiceGrid } from './styleRules.ts'

/** How much a moment asks for further voices: the least number the most. */
export const RANKS: Readonly<Record<VoiceGrid, number>> = {
  changes: 0,
  strong: 1,
  beats: 2,
  halves: 3,
  all: 4,
}

/** How strong a melody note's place is: on a strong beat, a beat, half a beat long, or none of these. */
export function rankOf(measure: Measure, from: Ticks, note: MelodyNote): number {
  const offset = missingHead(measure)
  const at = note.start - from + offset
  if (strongBeats(measure.metre).includes(at)) return RANKS.strong
  if (beatStarts(measure.metre).includes(at)) return RANKS.beats
  return note.duration >= beatLength(measure.metre) / 2 ? RANKS.halves : RANKS.all
}

/** Length of one fill: a beat, or its half (its third in compound metres). */
export function slotOf(measure: Measure, grid: 'beat' | 'half'): Ticks {
  const beat = beatLength(measure.metre)
  return grid === 'beat' ? beat : isCompound(measure.metre) ? beat / 3 : beat / 2
}

/** The beats of a measure that sound, or their halves (thirds in compound metres). */
export function gridTimes(measure: Measure, from: Ticks, grid: 'beat' | 'half'): Ticks[] {
  const slot = slotOf(measure, grid)
  const offset = missingHead(measure)
  const times: Ticks[] = []
  for (let at = 0; at < measure.nominal; at += slot)
    if (at >= offset && at - offset < measure.length) times.push(from + at - offset)
  return times
}

/** When the notes of the tune around a moment begin. */
export function neighbours(
  { melody, timeline }: { readonly melody: readonly MelodyNote[]; readonly timeline: Timeline },
  at: Ticks,
): { before: Ticks; after: Ticks } {
  const next = firstAtOrAfter(melody, at + 1)
  // Before a tune there is silence.
  return {
    before: melody[next - 1]?.start ?? -timeline.length,
    after: melody[next]?.start ?? timeline.length,
  }
}
