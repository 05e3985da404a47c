import { missingHead, type Ticks } from '@velvet-porch/core/music'
import type { Role, Score, TabNote } from '@velvet-porch/core/document'
import type { SheetModel, SheetPosition } from './sheetModel.ts'

/** Where the pen stands: a moment and, in the tab, a string. */
export interface Cell extends SheetPosition {
  readonly string: number
}

/** Moments of a measure at which something can be written: every onset, and every step of the pen's value. */
export function momentsOf(model: SheetModel, measure: number, step: Ticks): number[] {
  const m = model.tune.measures[measure]!
  const lead = missingHead(m)
  const moments = new Set<number>()
  for (let tick = Math.ceil(lead / step) * step - lead; tick < m.length; tick += step) moments.add(tick)
  for (const e of model.tune.events) if (e.voice === 0 && e.pos.measure === m.id) moments.add(e.pos.tick)
  for (const n of model.notes.get(measure) ?? []) moments.add(n.pos.tick)
  return [...moments].sort((a, b) => a - b)
}

/** The next or the last moment before a spot, over bar lines; the spot itself at the ends of the tune. */
export function stepped(model: SheetModel, at: SheetPosition, by: 1 | -1, step: Ticks): SheetPosition {
  const here = momentsOf(model, at.measure, step)
  const tick = by > 0 ? here.find((t) => t > at.tick) : here.findLast((t) => t < at.tick)
  if (tick !== undefined) return { measure: at.measure, tick }
  const measure = at.measure + by
  if (measure < 0 || measure >= model.tune.measures.length) return at
  const there = momentsOf(model, measure, step)
  return { measure, tick: by > 0 ? there[0]! : there.at(-1)! }
}

/** The note in a cell. */
export const noteOfCell = (model: SheetModel, { measure, tick, string }: Cell): TabNote | undefined =>
  model.notes.get(measure)?.find((n) => n.pos.tick === tick && n.place.string === string)

/** The note in a cell of a score, ahead of what is drawn. */
export function noteAt({ tune, arrangement }: Score, { measure, tick, string }: Cell): TabNote | undefined {
  const id = tune.measures[measure]?.id
  return arrangement?.base.notes.find(
    (n) => n.pos.measure === id && n.pos.tick === tick && n.place.string === string,
  )
}

/**
 * What a new note in a cell most likely is: a bass on the lower strings; above them the melody where the tune is silent,
 * another voice with a melody note, a fill under one that sounds on.
 */
export function likelyRole(model: SheetModel, cell: Cell): Role {
  const strings = model.setup?.instrument.strings ?? 6
  if (cell.string > Math.ceil(strings / 2)) return 'bass'
  const { id } = model.tune.measures[cell.measure]!
  const sounding = model.tune.events.find(
    (e) =>
      e.voice === 0 &&
      e.pos.measure === id &&
      e.pos.tick <= cell.tick &&
      e.pos.tick + e.dur.ticks > cell.tick,
  )
  if (!sounding?.pitch) return 'melody'
  return sounding.pos.tick === cell.tick ? 'harmony' : 'fill'
}
