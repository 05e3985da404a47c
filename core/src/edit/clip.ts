import { knownIn } from '../invariant.ts'
import { lockId } from '../document/locks.ts'
import type { Layer } from '../document/arrangement.ts'
import type { TabNote } from '../document/tab.ts'
import type { Id } from '../document/ids.ts'
import type { ChordMark, Measure, TempoMark, Tuplet, TuneDoc, TuneEvent } from '../document/tune.ts'
import { layerOfMeasures } from '../document/variants.ts'
import { melodyNoteId } from '../document/noteIds.ts'
import type { Score } from '../document/score.ts'
import type { SongLine } from '../document/song.ts'
import { freshIds } from './freshIds.ts'
import { linesOver, linesWithin } from './songLines.ts'

/** Measures that were copied, with all that stands in them; ids are those of their source. */
export interface Clip {
  readonly measures: readonly Measure[]
  readonly events: readonly TuneEvent[]
  readonly chords: readonly ChordMark[]
  readonly tuplets: readonly Tuplet[]
  readonly tempos: readonly TempoMark[]
  /** The words of a song that stand in these measures alone. */
  readonly lines?: readonly SongLine[]
  /** The tab of these measures, where there is one. */
  readonly layer?: Layer
}

/** Copies measures, by index, inclusive. */
export function clipOf({ tune, arrangement }: Score, from: number, to: number): Clip {
  const measures = tune.measures.slice(from, to + 1)
  const ids = new Set(measures.map((m) => m.id))
  const inside = <T extends { readonly pos: { readonly measure: Id } }>(list: readonly T[]) =>
    list.filter((x) => ids.has(x.pos.measure))
  const events = inside(tune.events)
  const tuplets = new Set(events.flatMap((e) => e.dur.tupletId ?? []))
  return {
    measures,
    events,
    chords: inside(tune.chords),
    tuplets: tune.tuplets.filter((t) => tuplets.has(t.id)),
    tempos: inside(tune.tempos).filter((t) => t.stated),
    ...(tune.song ? { lines: linesWithin(tune, ids) } : {}),
    ...(arrangement ? { layer: tabOf(arrangement.base, ids) } : {}),
  }
}

/** The tab of some measures, with what of it is locked. */
function tabOf(base: Layer, measures: ReadonlySet<Id>): Layer {
  const layer = layerOfMeasures(base, measures)
  const ids = new Set(layer.notes.map((n) => n.id))
  return { ...layer, locks: base.locks.filter((l) => ids.has(l.target)) }
}

/** The same measures under ids that a tune does not use yet: a copy that can stand beside its source. */
export function withFreshIds(clip: Clip, tune: TuneDoc): Clip {
  const ids = freshIds(tune)
  const measure = new Map(clip.measures.map((m) => [m.id, ids.measure()]))
  const event = new Map(clip.events.map((e) => [e.id, ids.event()]))
  const tuplet = new Map(clip.tuplets.map((t) => [t.id, ids.tuplet()]))
  const moved = <T extends { readonly pos: { readonly measure: Id; readonly tick: number } }>(x: T): T => ({
    ...x,
    pos: { ...x.pos, measure: knownIn(measure, x.pos.measure) },
  })
  return {
    measures: clip.measures.map((m) => ({ ...m, id: knownIn(measure, m.id) })),
    events: clip.events.map((e) => {
      const { tieTo, ...rest } = moved(e)
      const tied = tieTo === undefined ? undefined : event.get(tieTo)
      const { tupletId } = rest.dur
      return {
        ...rest,
        id: knownIn(event, e.id),
        dur: tupletId === undefined ? rest.dur : { ...rest.dur, tupletId: knownIn(tuplet, tupletId) },
        ...(tied === undefined ? {} : { tieTo: tied }),
      }
    }),
    chords: clip.chords.map((c) => ({ ...moved(c), id: ids.chord() })),
    tuplets: clip.tuplets.map((t) => ({ ...t, id: knownIn(tuplet, t.id) })),
    tempos: clip.tempos.map(moved),
    ...(clip.lines ? { lines: linesOver(clip.lines, measure, ids.line) } : {}),
    ...(clip.layer ? { layer: movedLayer(clip.layer, measure, event) } : {}),
  }
}

/** A layer whose measures and source notes have other ids; what hangs on a note's id follows. */
function movedLayer(layer: Layer, measure: ReadonlyMap<Id, Id>, event: ReadonlyMap<Id, Id>): Layer {
  const newIn = (id: Id, place: Id): Id => {
    const to = knownIn(measure, place)
    const renamed = id.replace(`.${place}.`, `.${to}.`)
    return renamed === id ? `${id}.${to}` : renamed
  }
  // A melody note whose tune is not copied with it plays nothing.
  const kept = layer.notes.filter((n) => n.role !== 'melody' || event.has(n.sourceId ?? ''))
  const noteId = new Map(
    kept.map((n) => {
      const source = n.sourceId === undefined ? undefined : event.get(n.sourceId)
      return [n.id, source !== undefined ? melodyNoteId(source) : newIn(n.id, n.pos.measure)]
    }),
  )
  const at = <T extends { readonly measure: Id; readonly tick: number }>(pos: T): T => ({
    ...pos,
    measure: measure.get(pos.measure) ?? pos.measure,
  })
  const noteAs = (n: TabNote): TabNote => ({
    ...n,
    id: knownIn(noteId, n.id),
    pos: at(n.pos),
    ...(n.sourceId === undefined ? {} : { sourceId: event.get(n.sourceId) ?? n.sourceId }),
  })
  return {
    notes: kept.map(noteAs),
    spans: layer.spans.flatMap((s) => {
      const [from, to] = [noteId.get(s.from), noteId.get(s.to)]
      return from !== undefined && to !== undefined ? [{ ...s, id: `s.${to}`, from, to }] : []
    }),
    grips: layer.grips.map((g) => ({
      ...g,
      id: newIn(g.id, g.pos.measure),
      pos: at(g.pos),
      until: at(g.until),
    })),
    locks: layer.locks.flatMap((l) => {
      const target = noteId.get(l.target)
      if (target === undefined) return []
      const own = { ...l, id: lockId(l.field, target), target }
      return [own.field === 'typed' ? { ...own, value: noteAs(own.value) } : own]
    }),
  }
}

/** A copy takes the notes along, not the signs of the form. */
export const unmarked = (clip: Clip): Clip => ({ ...clip, measures: clip.measures.map(plainMeasure) })

/** A measure without signs of the form. */
export function plainMeasure({ segno: _, coda: __, fine: ___, jump: ____, ...m }: Measure): Measure {
  return { ...m, repeatStart: false, repeatEnd: 1, endings: [], barline: 'single' }
}
