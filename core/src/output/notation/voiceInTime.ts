import type { Id } from '../../document/ids.ts'
import type { Measure, Tuplet, TuneEvent } from '../../document/tune.ts'
import { inFullMeasure } from '../../music/time/metre.ts'
import type { Pitch } from '../../music/pitch/pitch.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import { tupletSpans, writtenParts, type TupletSpan } from './writtenSpans.ts'

/** A note or chord of one voice, on the written time line. */
export interface NoteInTime {
  readonly from: Ticks
  readonly to: Ticks
  /** The highest first. */
  readonly pitches: readonly Pitch[]
  readonly lyric?: string
}

/** A voice that is written down. */
export interface VoiceWritten {
  readonly events: readonly TuneEvent[]
  readonly tuplets: readonly Tuplet[]
  /** The first event of each note, in the order of the notes. */
  readonly firsts: readonly Id[]
}

/**
 * Writes notes that follow one another as events of a tune: parted at bar lines and where tuplets begin and end, tied together again; rests
 * between them.
 * @param notes in order of time, none beginning before the one before it ends
 */
export function voiceInTime(
  measures: readonly Measure[],
  notes: readonly NoteInTime[],
  voice: number,
  newId: (prefix: 'e' | 't') => Id,
): VoiceWritten {
  const events: TuneEvent[] = []
  const tuplets: Tuplet[] = []
  const firsts: Id[] = []
  let start = 0
  let first = 0
  /** The event that the next part of a note is tied to. */
  let open: number | undefined
  for (const measure of measures) {
    const end = start + measure.length
    while (notes[first] && notes[first]!.to <= start) first++
    const own: NoteInTime[] = []
    for (let i = first; notes[i] && notes[i]!.from < end; i++) own.push(notes[i]!)
    const edges = own.flatMap((n) => [n.from, n.to]).filter((t) => t > start && t < end)
    const spans = tupletSpans(
      edges.map((t) => t - start),
      measure.length,
      -inFullMeasure(measure, 0),
    )
    const ids = new Map<TupletSpan, Id>()
    const write = (from: Ticks, to: Ticks, note: NoteInTime | undefined) => {
      for (const { tick, ticks, base, dots, tuplet } of writtenParts(from, to, spans)) {
        let tupletId = tuplet && ids.get(tuplet)
        if (tuplet && tupletId === undefined) {
          tupletId = newId('t')
          ids.set(tuplet, tupletId)
          tuplets.push({ id: tupletId, actual: tuplet.actual, normal: tuplet.normal })
        }
        const id = newId('e')
        const [pitch, ...chordTones] = note?.pitches ?? []
        const begins = note !== undefined && open === undefined
        if (open !== undefined && note) events[open] = { ...events[open]!, tieTo: id }
        if (begins) firsts.push(id)
        events.push({
          id,
          voice,
          pos: { measure: measure.id, tick },
          dur: { ticks, base, dots, ...(tupletId === undefined ? {} : { tupletId }) },
          ...(pitch ? { pitch } : {}),
          chordTones,
          graces: [],
          ornaments: [],
          ...(begins && note.lyric !== undefined ? { lyric: note.lyric } : {}),
        })
        open = note ? events.length - 1 : undefined
      }
    }
    let at = 0
    for (const note of own) {
      const [from, to] = [Math.max(start, note.from) - start, Math.min(end, note.to) - start]
      if (from > at) write(at, from, undefined)
      if (note.from >= start) open = undefined
      write(from, to, note)
      if (note.to <= end) open = undefined
      at = to
    }
    if (at < measure.length) write(at, measure.length, undefined)
    start = end
  }
  return { events, tuplets, firsts }
}
