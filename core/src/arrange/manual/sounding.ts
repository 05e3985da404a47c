import { ticksAt, type Timeline } from '../../document/form/timeline.ts'
import type { TabNote } from '../../document/tab.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import type { Turns } from '../../turns.ts'

/** A note of the tab with its written start and end. */
export interface SoundingNote {
  readonly note: TabNote
  readonly start: Ticks
  readonly end: Ticks
}

/** The notes of a tab that sound in a stretch of written time, in order of time, low strings first. */
export function* findingSoundings(
  notes: readonly TabNote[],
  timeline: Timeline,
  { from, to }: { readonly from: Ticks; readonly to: Ticks },
): Turns<SoundingNote[]> {
  const found: SoundingNote[] = []
  for (const [i, note] of notes.entries()) {
    if (i % 2048 === 2047) yield
    const start = ticksAt(timeline, note.pos)
    const end = start + note.dur.ticks
    if (start < to && end > from) found.push({ note, start, end })
  }
  yield
  return found.sort((a, b) => a.start - b.start || b.note.place.string - a.note.place.string)
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
