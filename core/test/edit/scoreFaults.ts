import { midiOf } from '../../src/music/index.ts'
import { lastFret } from '../../src/instrument/index.ts'
import {
  isArrival,
  ticksAt,
  timelineOf,
  type ArrangementDoc,
  type Score,
  type TuneDoc,
  type TuneEvent,
} from '../../src/document/index.ts'
import { readArrangementDoc, readTuneDoc } from '../../src/schema/index.ts'

/**
 * All that is wrong with a score as data, found from the documents alone.
 * @param schema false where the schemas, which take their time, are not asked
 */
export function scoreFaults({ tune, arrangement }: Score, schema = true): string[] {
  const faults = [...tuneFaults(tune), ...(arrangement ? tabFaults(tune, arrangement) : [])]
  if (!schema) return faults
  for (const read of [() => readTuneDoc(tune), () => arrangement && readArrangementDoc(arrangement)])
    try {
      read()
    } catch (error) {
      faults.push((error as Error).message)
    }
  return faults
}

function doubles(what: string, ids: readonly string[]): string[] {
  const seen = new Set<string>()
  return ids.filter((id) => seen.size === seen.add(id).size).map((id) => `two ${what} ${id}`)
}

function tuneFaults(tune: TuneDoc): string[] {
  const faults = [
    ...doubles(
      'measures',
      tune.measures.map((m) => m.id),
    ),
    ...doubles(
      'events',
      tune.events.map((e) => e.id),
    ),
    ...doubles(
      'chords',
      tune.chords.map((c) => c.id),
    ),
    ...doubles(
      'sections',
      tune.sections.map((s) => s.id),
    ),
    ...doubles(
      'tuplets',
      tune.tuplets.map((t) => t.id),
    ),
  ]
  const known = new Map(tune.measures.map((m) => [m.id, m]))
  const byId = new Map(tune.events.map((e) => [e.id, e]))
  const tuplets = new Set(tune.tuplets.map((t) => t.id))
  const melodies = new Map(tune.measures.map((m) => [m.id, [] as TuneEvent[]]))
  for (const e of tune.events) if (e.voice === 0) melodies.get(e.pos.measure)?.push(e)
  for (const m of tune.measures) {
    let at = 0
    for (const e of melodies.get(m.id)!) {
      if (e.pos.tick !== at) faults.push(`measure ${m.id}: ${e.id} at ${e.pos.tick}, not ${at}`)
      at = e.pos.tick + e.dur.ticks
    }
    if (at !== m.length) faults.push(`measure ${m.id} sums to ${at} of ${m.length}`)
  }
  for (const e of tune.events) {
    if (!known.has(e.pos.measure)) faults.push(`${e.id} in no measure`)
    if (e.dur.tupletId && !tuplets.has(e.dur.tupletId)) faults.push(`${e.id} in no tuplet`)
    const to = e.tieTo === undefined ? undefined : byId.get(e.tieTo)
    if (e.tieTo !== undefined && (!to?.pitch || !e.pitch || midiOf(to.pitch) !== midiOf(e.pitch)))
      faults.push(`${e.id} is tied to another pitch`)
  }
  for (const c of tune.chords) {
    const m = known.get(c.pos.measure)
    if (!m || c.pos.tick >= m.length) faults.push(`chord ${c.symbol} stands nowhere`)
  }
  for (const s of tune.sections) if (!known.has(s.measure)) faults.push(`section ${s.name} stands nowhere`)
  const first = tune.tempos[0]
  if (first?.pos.measure !== tune.measures[0]!.id || first.pos.tick !== 0)
    faults.push('no tempo at the start')
  return faults
}

function tabFaults(tune: TuneDoc, doc: ArrangementDoc): string[] {
  const { notes, spans, grips } = doc.base
  const faults = [
    ...doubles(
      'notes',
      notes.map((n) => n.id),
    ),
    ...doubles(
      'grips',
      grips.map((g) => g.id),
    ),
  ]
  const known = new Map(tune.measures.map((m) => [m.id, m]))
  const events = new Set(tune.events.filter((e) => e.pitch).map((e) => e.id))
  const struck = new Set<string>()
  let last = -1
  const timeline = timelineOf(tune.measures)
  for (const n of notes) {
    const m = known.get(n.pos.measure)
    if (!m || n.pos.tick < 0 || n.pos.tick >= m.length) {
      faults.push(`${n.id} in no measure`)
      continue
    }
    const start = ticksAt(timeline, n.pos)
    if (start < last) faults.push(`${n.id} out of order`)
    last = start
    if (n.role === 'melody' && !events.has(n.sourceId ?? '')) faults.push(`${n.id} plays nothing of the tune`)
    const slot = `${start} on string ${n.place.string}`
    if (struck.has(slot)) faults.push(`two notes at ${slot}`)
    struck.add(slot)
    if (n.place.fret < 0 || n.place.fret > lastFret(doc.setup, n.place.string))
      faults.push(`${n.id} off the neck`)
    if ((n.place.fret === 0) !== (n.left === 0))
      faults.push(`${n.id}: fret ${n.place.fret}, finger ${n.left}`)
    if (n.dur.ticks <= 0) faults.push(`${n.id} lasts ${n.dur.ticks}`)
    if (isArrival(n.attack) && !n.graces && !spans.some((s) => s.to === n.id && s.kind === n.attack))
      faults.push(`${n.id} arrives from nowhere`)
  }
  const ids = new Set(notes.map((n) => n.id))
  for (const s of spans) if (!ids.has(s.from) || !ids.has(s.to)) faults.push(`span ${s.id} joins nothing`)
  for (const g of grips)
    if (!known.has(g.pos.measure) || !known.has(g.until.measure)) faults.push(`${g.id} in no measure`)
  if (doc.regions[0]?.from !== tune.measures[0]!.id || doc.regions.at(-1)?.to !== tune.measures.at(-1)!.id)
    faults.push('regions do not cover the tune')
  return faults
}
