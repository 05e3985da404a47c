import { knownIn } from '../../invariant.ts'
import { ticksAt, type Timeline } from '../../document/form/timeline.ts'
import { barNotes } from '../../document/barNotes.ts'
import { joinedUntil } from '../../document/joinedUntil.ts'
import type { Layer } from '../../document/arrangement.ts'
import type { TabNote } from '../../document/tab.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import type { Turns } from '../../turns.ts'

/** A note of the tab with its written start and end. */
export interface SoundingNote {
  readonly note: TabNote
  readonly start: Ticks
  readonly end: Ticks
  /** True for a note that sounds beyond its written length because another is reached from it: its finger must wait. */
  readonly awaited?: true
  /** True where a bottleneck stops it. */
  readonly bar?: true
}

/**
 * The notes of a tab that sound in a stretch of written time, in order of time, low strings first. What another note is
 * reached from sounds until then, whatever was struck meanwhile; what is to ring does as long as its string is free, at most
 * to the end of its measure.
 */
export function* findingSoundings(
  layer: Pick<Layer, 'notes' | 'spans'>,
  timeline: Timeline,
  { from, to }: { readonly from: Ticks; readonly to: Ticks },
): Turns<SoundingNote[]> {
  const reachedAt = joinedUntil(layer, timeline)
  const onBar = barNotes(layer)
  yield
  const found: SoundingNote[] = []
  for (const [i, note] of layer.notes.entries()) {
    if (i % 2048 === 2047) yield
    const start = ticksAt(timeline, note.pos)
    const written = start + note.dur.ticks
    const joined = reachedAt.get(note.id) ?? 0
    const end = Math.max(written, joined)
    if (start < to && end > from)
      found.push({
        note,
        start,
        end,
        ...(joined > written ? { awaited: true as const } : {}),
        ...(onBar.has(note.id) ? { bar: true as const } : {}),
      })
  }
  yield
  found.sort((a, b) => a.start - b.start || b.note.place.string - a.note.place.string)
  return ringingOn(found, timeline)
}

/** Notes that are to ring, as long as they may. */
function ringingOn(found: readonly SoundingNote[], { starts, length, indexOf }: Timeline): SoundingNote[] {
  const next = new Map<number, Ticks>()
  return found
    .toReversed()
    .map((s) => {
      const { note, start, end } = s
      const struck = next.get(note.place.string) ?? length
      next.set(note.place.string, start)
      if (!note.letRing) return s
      const measureEnd = starts[knownIn(indexOf, note.pos.measure) + 1] ?? length
      const rings = Math.min(struck, measureEnd)
      return rings > end ? { ...s, end: rings } : s
    })
    .toReversed()
}

/**
 * What sounds at times that rise from one call to the next, a note a string: where two overlap, the later one has the string. A harmonic needs its finger
 * only while it is struck.
 */
export function soundingInTime(all: readonly SoundingNote[]): (at: Ticks) => SoundingNote[] {
  let next = 0
  let going: SoundingNote[] = []
  return (at) => {
    while (next < all.length && all[next]!.start <= at) going.push(all[next++]!)
    going = going.filter((s) => s.end > at)
    const byString = new Map<number, SoundingNote>()
    for (const s of going) {
      if (s.note.place.harmonic && s.start < at) continue
      byString.set(s.note.place.string, s)
    }
    return [...byString.values()]
  }
}
