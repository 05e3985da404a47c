import { knownIn } from '../../invariant.ts'
import type { Id } from '../ids.ts'
import type { Measure, Pos, TuneDoc, TuneEvent } from '../tune.ts'
import type { Pitch } from '../../music/pitch/pitch.ts'
import type { Ticks } from '../../music/time/ticks.ts'

/** The written time line: where each measure starts when the page is read once from top to bottom. */
export interface Timeline {
  readonly starts: readonly Ticks[]
  readonly length: Ticks
  readonly indexOf: ReadonlyMap<Id, number>
}

/** Many ask about the same measures and notes; both are never changed in place. */
const timelines = new WeakMap<object, Timeline>()
const melodies = new WeakMap<
  TuneDoc['events'],
  { timeline: Timeline; voice: number; notes: readonly MelodyNote[] }
>()

export function timelineOf(measures: readonly Pick<Measure, 'id' | 'length'>[]): Timeline {
  const known = timelines.get(measures) ?? laidOut(measures)
  timelines.set(measures, known)
  return known
}

function laidOut(measures: readonly Pick<Measure, 'id' | 'length'>[]): Timeline {
  const starts: Ticks[] = []
  const indexOf = new Map<Id, number>()
  let at = 0
  measures.forEach((m, i) => {
    starts.push(at)
    indexOf.set(m.id, i)
    at += m.length
  })
  return { starts, length: at, indexOf }
}

/** A position as ticks from the written start. */
export function ticksAt(timeline: Timeline, pos: Pos): Ticks {
  return timeline.starts[knownIn(timeline.indexOf, pos.measure)]! + pos.tick
}

/** The measure index that holds a written time; the last measure for times at or past the end. */
export function measureAt(timeline: Timeline, tick: Ticks): number {
  let low = 0
  let high = timeline.starts.length - 1
  while (low < high) {
    const mid = (low + high + 1) >> 1
    if (timeline.starts[mid]! <= tick) low = mid
    else high = mid - 1
  }
  return low
}

/** Where a written time stands: its measure, and the tick inside it. */
export function posAt(measures: readonly Pick<Measure, 'id'>[], timeline: Timeline, at: Ticks): Pos {
  const m = measureAt(timeline, at)
  return { measure: measures[m]!.id, tick: at - timeline.starts[m]! }
}

/** A melody note with its ties joined. */
export interface MelodyNote {
  readonly sourceId: Id
  readonly start: Ticks
  readonly duration: Ticks
  readonly pitch: Pitch
  readonly measure: number
  /** Semitones by which it alone is moved, as the instrument does not have it where it stands. */
  readonly moved?: number
  /** True where the source slurs it to the note before. */
  readonly slurred: boolean
}

/** The melody (or another voice of the source) in written order, tied notes as one. */
export function melodyOf(tune: TuneDoc, timeline: Timeline, voice = 0): readonly MelodyNote[] {
  const known = melodies.get(tune.events)
  if (known?.timeline === timeline && known.voice === voice) return known.notes
  const notes = notesOf(tune, timeline, voice)
  melodies.set(tune.events, { timeline, voice, notes })
  return notes
}

function notesOf(tune: TuneDoc, timeline: Timeline, voice: number): MelodyNote[] {
  const byId = new Map<Id, TuneEvent>(tune.events.map((e) => [e.id, e]))
  const continued = new Set(tune.events.flatMap((e) => (e.tieTo ? [e.tieTo] : [])))
  const notes: MelodyNote[] = []
  for (const event of tune.events) {
    if (event.voice !== voice || !event.pitch || continued.has(event.id)) continue
    let duration = event.dur.ticks
    for (let next = event.tieTo; next;) {
      const tied = byId.get(next)
      if (!tied) break
      duration += tied.dur.ticks
      next = tied.tieTo
    }
    notes.push({
      sourceId: event.id,
      start: ticksAt(timeline, event.pos),
      duration,
      pitch: event.pitch,
      measure: knownIn(timeline.indexOf, event.pos.measure),
      slurred: event.slurred ?? false,
    })
  }
  return notes.sort((a, b) => a.start - b.start)
}
