import { knownIn } from '../invariant.ts'
import { melodyOf, timelineOf, type MelodyNote } from '../document/form/timeline.ts'
import { joinedUp } from '../arrange/manual/placed.ts'
import { inTime, reaching } from '../arrange/manual/reaching.ts'
import type { ArrangementDoc, Layer } from '../document/arrangement.ts'
import type { Lock } from '../document/locks.ts'
import type { TabNote } from '../document/tab.ts'
import { durationOf } from '../document/durationOf.ts'
import type { Id } from '../document/ids.ts'
import type { Pos, TuneDoc } from '../document/tune.ts'

/**
 * A tab that follows its tune after an edit: melody notes that the tune lost are gone, the others start and last as the
 * tune says; nothing stands outside a measure; joins and grips reach where they should; what was typed is locked as it
 * now stands.
 */
export function tidyTab(tune: TuneDoc, arrangement: ArrangementDoc): ArrangementDoc {
  const timeline = timelineOf(tune.measures)
  const lengths = new Map(tune.measures.map((m) => [m.id, m.length]))
  const inside = ({ measure, tick }: Pos) => tick < (lengths.get(measure) ?? 0)
  const melody = new Map(melodyOf(tune, timeline).map((n) => [n.sourceId, n]))
  const positions = new Map(tune.events.map((e) => [e.id, e.pos]))
  const notes = arrangement.base.notes
    .flatMap((n) => followed(n, melody, positions))
    .filter((n) => inside(n.pos))
  const { base } = arrangement
  const layer = joinedUp({ ...base, notes: inTime(notes, timeline) }, timeline)
  const last = tune.measures.at(-1)!
  const grips = reaching(
    base.grips.filter((g) => inside(g.pos)),
    timeline,
    { measure: last.id, tick: last.length },
  )
  return { ...arrangement, base: { ...layer, grips, locks: relocked(base, layer.notes, lengths) } }
}

/** A note as the tune now has it; nothing where the tune lost it. */
function followed(
  n: TabNote,
  melody: ReadonlyMap<Id, MelodyNote>,
  positions: ReadonlyMap<Id, Pos>,
): readonly TabNote[] {
  if (n.role !== 'melody' || n.sourceId === undefined) return [n]
  const own = melody.get(n.sourceId)
  if (!own) return []
  const pos = knownIn(positions, n.sourceId)
  const moved = pos.measure === n.pos.measure && pos.tick === n.pos.tick ? n : { ...n, pos }
  return [own.duration === n.dur.ticks ? moved : { ...moved, dur: durationOf(own.duration) }]
}

/** Locks of notes and measures that are still there; typed ones hold the note as it now stands. */
function relocked(
  before: Layer,
  notes: readonly TabNote[],
  lengths: ReadonlyMap<Id, unknown>,
): readonly Lock[] {
  const had = new Set(before.notes.map((n) => n.id))
  const byId = new Map(notes.map((n) => [n.id, n]))
  return before.locks.flatMap((l) => {
    const note = byId.get(l.target)
    if (!note && had.has(l.target)) return []
    if (l.field === 'measure' && !lengths.has(l.target)) return []
    return l.field === 'typed' && note && l.value !== note ? [{ ...l, value: note }] : [l]
  })
}
