import { ticksAt, type Timeline } from '../../document/form/timeline.ts'
import type { Layer } from '../../document/arrangement.ts'
import { isArrival, type Span, type TabNote } from '../../document/tab.ts'
import { durationOf } from '../../document/durationOf.ts'
import { inTime } from './reaching.ts'

/**
 * A tab with a note written into it, in the place of what is struck there on its string. What rings on that string
 * before ends where the note begins; the note ends where the next one on its string begins. The melody's lengths are
 * the tune's: they stay.
 */
export function withNote(layer: Layer, note: TabNote, timeline: Timeline): Layer {
  const start = ticksAt(timeline, note.pos)
  const onString = (n: TabNote) => n.place.string === note.place.string && n.id !== note.id
  const others = layer.notes.filter(
    (n) => n.id !== note.id && !(onString(n) && ticksAt(timeline, n.pos) === start),
  )
  const next = others
    .filter(onString)
    .map((n) => ticksAt(timeline, n.pos))
    .filter((t) => t > start)
  const room = Math.min(...next) - start
  const fits = note.role === 'melody' || note.dur.ticks <= room ? note : { ...note, dur: durationOf(room) }
  const notes = others.map((n) => {
    if (!onString(n) || n.role === 'melody') return n
    const at = ticksAt(timeline, n.pos)
    return at < start && at + n.dur.ticks > start ? { ...n, dur: durationOf(start - at) } : n
  })
  const at = notes.findIndex((n) => ticksAt(timeline, n.pos) > start)
  const into = at < 0 ? notes.length : at
  return joinedUp({ ...layer, notes: [...notes.slice(0, into), fits, ...notes.slice(into)] }, timeline)
}

/** A tab without some of its notes. */
export function withoutNotes(layer: Layer, gone: (n: TabNote) => boolean, timeline: Timeline): Layer {
  return joinedUp({ ...layer, notes: layer.notes.filter((n) => !gone(n)) }, timeline)
}

/**
 * Spans as the notes say: every note that the fretting hand sounds is joined to the one before it on its string; where
 * there is none it is plucked.
 */
export function joinedUp(layer: Layer, timeline: Timeline): Layer {
  const spans: Span[] = []
  const last = new Map<number, TabNote>()
  const plain = new Set<TabNote>()
  for (const n of inTime(layer.notes, timeline)) {
    const from = last.get(n.place.string)
    last.set(n.place.string, n)
    if (!isArrival(n.attack) || n.graces) continue
    if (from && ticksAt(timeline, from.pos) < ticksAt(timeline, n.pos))
      spans.push({ id: `s.${n.id}`, kind: n.attack, from: from.id, to: n.id })
    else plain.add(n)
  }
  const notes = plain.size
    ? layer.notes.map((n): TabNote => (plain.has(n) ? { ...n, attack: 'pluck', right: 'p' } : n))
    : layer.notes
  return { ...layer, notes, spans: sameSpans(layer.spans, spans) ? layer.spans : spans }
}

/** True where two lists hold the same spans; a note is reached but once. */
function sameSpans(a: readonly Span[], b: readonly Span[]): boolean {
  const reached = new Map(b.map((s) => [s.to, s]))
  return (
    a.length === b.length &&
    a.every((s) => {
      const own = reached.get(s.to)
      return own?.kind === s.kind && own.from === s.from
    })
  )
}
