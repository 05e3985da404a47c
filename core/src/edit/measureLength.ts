import type { Measure, TuneDoc, TuneEvent } from '../document/tune.ts'
import { freshIds } from './freshIds.ts'
import { filled, melodyIn, withMelodyIn } from './melodyMeasure.ts'

/** A measure with another length: rests come and go at its end; notes never do, nor does the moment of a chord. */
export function withLength(tune: TuneDoc, index: number, wanted: Measure): TuneDoc {
  const melody = melodyIn(tune, wanted.id)
  const chords = tune.chords.flatMap((c) =>
    c.pos.measure === wanted.id && c.pos.tick >= wanted.length ? [c.pos.tick] : [],
  )
  const underChord = (e: TuneEvent) =>
    chords.some((tick) => e.pos.tick <= tick && e.pos.tick + e.dur.ticks > tick)
  const notes = melody.filter((e) => e.pitch !== undefined || e.dur.tupletId !== undefined || underChord(e))
  const sounding = Math.max(0, ...notes.map((e) => e.pos.tick + e.dur.ticks))
  const measure = { ...wanted, length: Math.max(wanted.length, sounding) }
  const resized = { ...tune, measures: tune.measures.map((m, i) => (i === index ? measure : m)) }
  const trimmed = melody.filter((e) => e.pos.tick < measure.length)
  return withMelodyIn(resized, measure.id, filled(trimmed, measure, freshIds(tune).event))
}

/**
 * A measure that held more than its metre, and of which nothing sounds beyond it after a change, has the length of its metre again.
 * Measures that the change left alone stay as they were brought.
 */
export function withoutEmptyExcess(before: TuneDoc, after: TuneDoc): TuneDoc {
  if (!after.measures.some((m) => m.length > m.nominal)) return after
  const unchanged = new Set(before.events)
  const changed = new Set(after.events.flatMap((e) => (unchanged.has(e) ? [] : [e.pos.measure])))
  return after.measures.reduce(
    (tune, m, i) =>
      m.length > m.nominal && changed.has(m.id) ? withLength(tune, i, { ...m, length: m.nominal }) : tune,
    after,
  )
}
