import { knownIn } from '../invariant.ts'
import { durationOf } from '../document/durationOf.ts'
import type { Id } from '../document/ids.ts'
import type { Measure, TuneDoc, TuneEvent } from '../document/tune.ts'
import { plainValues } from '../output/notation/plainValues.ts'
import { WHOLE, type Ticks } from '../music/time/ticks.ts'

/** The shortest note that can be written: a 64th. */
export const SHORTEST: Ticks = WHOLE / 64

/** The melody of one measure: events one after the other, without gaps. */
export type MelodyMeasure = readonly TuneEvent[]

export function melodyIn(tune: TuneDoc, measure: Id): MelodyMeasure {
  return tune.events
    .filter((e) => e.voice === 0 && e.pos.measure === measure)
    .sort((a, b) => a.pos.tick - b.pos.tick)
}

/** Rests that fill a stretch of a measure, in plain values. */
export function restsFor(measure: Id, from: Ticks, to: Ticks, newId: () => Id): TuneEvent[] {
  const rests: TuneEvent[] = []
  let at = from
  for (const { ticks } of to > from ? plainValues(to - from) : []) {
    rests.push({
      id: newId(),
      voice: 0,
      pos: { measure, tick: at },
      dur: durationOf(ticks),
      chordTones: [],
      graces: [],
      ornaments: [],
    })
    at += ticks
  }
  return rests
}

/** A melody with rests wherever nothing stands, and rests beside one another written as plainly as they can be. */
export function filled(
  melody: MelodyMeasure,
  measure: Pick<Measure, 'id' | 'length'>,
  newId: () => Id,
): MelodyMeasure {
  const kept = melody.filter((e) => e.pitch !== undefined || e.dur.tupletId !== undefined)
  const rests = melody.filter((e) => e.pitch === undefined && e.dur.tupletId === undefined)
  const result: TuneEvent[] = []
  let at = 0
  const fill = (to: Ticks) => {
    if (to <= at) return
    // A gap that the very same rests fill already stays as it is.
    const own = rests.filter((r) => r.pos.tick >= at && r.pos.tick + r.dur.ticks <= to)
    const whole = own.reduce((sum, r) => sum + r.dur.ticks, 0) === to - at
    result.push(...(whole ? own : restsFor(measure.id, at, to, newId)))
  }
  for (const e of kept) {
    fill(e.pos.tick)
    result.push(e)
    at = e.pos.tick + e.dur.ticks
  }
  fill(measure.length)
  return result
}

/** A tune with another melody in a measure; ties and tuplets that lose their notes are dropped. */
export function withMelodyIn(tune: TuneDoc, measure: Id, melody: MelodyMeasure): TuneDoc {
  const rest = tune.events.filter((e) => e.voice !== 0 || e.pos.measure !== measure)
  return withEvents(tune, [...rest, ...melody])
}

/** A tune with other events, in the order of voices and time. */
export function withEvents(tune: TuneDoc, events: readonly TuneEvent[]): TuneDoc {
  const indexOf = new Map(tune.measures.map((m, i) => [m.id, i]))
  const sorted = [...events].sort(
    (a, b) =>
      a.voice - b.voice ||
      knownIn(indexOf, a.pos.measure) - knownIn(indexOf, b.pos.measure) ||
      a.pos.tick - b.pos.tick,
  )
  const byId = new Map(sorted.map((e) => [e.id, e]))
  const used = new Set(sorted.flatMap((e) => e.dur.tupletId ?? []))
  return {
    ...tune,
    events: sorted.map((e) => (e.tieTo && !tiesOn(e, byId.get(e.tieTo)) ? untied(e) : e)),
    tuplets: tune.tuplets.filter((t) => used.has(t.id)),
  }
}

export function untied({ tieTo: _, ...event }: TuneEvent): TuneEvent {
  return event
}

export const samePitch = (a: TuneEvent['pitch'], b: TuneEvent['pitch']): boolean =>
  a !== undefined && b !== undefined && a.step === b.step && a.alter === b.alter && a.octave === b.octave

const tiesOn = (from: TuneEvent, to: TuneEvent | undefined): boolean =>
  to !== undefined && samePitch(from.pitch, to.pitch)
