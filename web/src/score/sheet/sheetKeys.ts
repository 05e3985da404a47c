import { xAt, type SystemLayout } from '@velvet-porch/core/output/layout'
import { type KeyboardEvent } from 'react'
import { stepped, type Cell } from './cells.ts'
import type { SheetModel, SheetPosition } from './sheetModel.ts'
import type { SheetSelection, SheetWriting } from './selection.ts'

interface KeysOfSheet {
  readonly model: SheetModel
  readonly writing: SheetWriting | undefined
  readonly selection: SheetSelection
  readonly systems: readonly SystemLayout[]
  readonly systemOf: (measure: number) => number
  readonly pick: (next: SheetPosition, extend: boolean) => void
}

/** What a key does on the page: it walks, marks measures, or moves the pen. */
export function sheetKeys({
  model,
  selection: { position, onPosition, marked, onMark },
  writing,
  systems,
  systemOf,
  pick,
}: KeysOfSheet): (event: KeyboardEvent) => void {
  return (event) => {
    const byMeasure = (event.ctrlKey || event.metaKey) && !event.altKey && !event.shiftKey
    if (byMeasure && (event.key === 'ArrowLeft' || event.key === 'ArrowRight')) {
      const by = event.key === 'ArrowRight' ? 1 : -1
      const from = writing?.cell?.measure ?? position?.measure ?? 0
      const measure = Math.min(Math.max(from + by, 0), model.tune.measures.length - 1)
      event.preventDefault()
      if (writing) writing.onCell({ string: 0, ...writing.cell, measure, tick: 0 })
      else onPosition?.(nearestPosition(model, { measure, tick: 0 }))
      return
    }
    if (writing && !event.altKey && !event.ctrlKey && !event.metaKey && !event.shiftKey) {
      const to = walkCells(event.key, model, writing)
      if (to) {
        event.preventDefault()
        return writing.onCell(to)
      }
    }
    // On the staff the pen moves the note itself.
    const pitches = writing && !model.layer && /^Arrow(Up|Down)$/.test(event.key)
    if (writing && (pitches || event.altKey || event.ctrlKey || event.metaKey)) return
    const next = walk(event.key, model, systems, systemOf, position)
    if (next && onPosition) {
      event.preventDefault()
      if (event.shiftKey) pick(next, true)
      onPosition(next)
    } else if (event.key === 'Enter' && position && onMark) {
      event.preventDefault()
      onMark(
        marked && marked.from === position.measure && marked.to === position.measure
          ? undefined
          : { from: position.measure, to: position.measure },
      )
    } else if (event.key === 'Escape' && marked && onMark) {
      event.stopPropagation()
      onMark(undefined)
    }
  }
}

/** Where an arrow key takes the pen: along the moments, across the strings. */
function walkCells(key: string, model: SheetModel, { cell, step }: SheetWriting): Cell | undefined {
  const strings = model.setup && model.layer ? model.setup.instrument.strings : 0
  const here = cell ?? { measure: 0, tick: 0, string: strings === 0 ? 0 : 1 }
  if (key === 'ArrowRight') return { ...here, ...stepped(model, here, 1, step) }
  if (key === 'ArrowLeft') return { ...here, ...stepped(model, here, -1, step) }
  if (key === 'Home') return { ...here, measure: 0, tick: 0 }
  if (key === 'End') return { ...here, measure: model.tune.measures.length - 1, tick: 0 }
  if (strings === 0) return undefined
  if (key === 'ArrowUp') return { ...here, string: Math.max(1, here.string - 1) }
  if (key === 'ArrowDown') return { ...here, string: Math.min(strings, here.string + 1) }
  return undefined
}

export function nearestPosition(model: SheetModel, wanted: SheetPosition): SheetPosition {
  const inMeasure = model.positions.filter((s) => s.measure === wanted.measure)
  return (
    inMeasure.reduce<SheetPosition | undefined>(
      (best, s) => (!best || Math.abs(s.tick - wanted.tick) < Math.abs(best.tick - wanted.tick) ? s : best),
      undefined,
    ) ?? wanted
  )
}

function walk(
  key: string,
  model: SheetModel,
  systems: readonly SystemLayout[],
  systemOf: (m: number) => number,
  position: SheetPosition | undefined,
): SheetPosition | undefined {
  const { positions } = model
  const at = position
    ? positions.findIndex((s) => s.measure === position.measure && s.tick === position.tick)
    : -1
  if (key === 'ArrowRight') return positions[Math.min(at + 1, positions.length - 1)]
  if (key === 'ArrowLeft') return positions[Math.max(at - 1, 0)]
  if (key === 'Home') return positions[0]
  if (key === 'End') return positions.at(-1)
  if ((key === 'ArrowUp' || key === 'ArrowDown') && position) {
    const here = systemOf(position.measure)
    const target = systems[here + (key === 'ArrowUp' ? -1 : 1)]
    const placed = systems[here]?.measures.find((m) => m.index === position.measure)
    if (!target || !placed) return position
    const x = xAt(placed, position.tick, model.tune.measures[position.measure]!.length)
    const measure = target.measures.find((m) => x < m.x + m.width) ?? target.measures.at(-1)!
    return nearestPosition(model, {
      measure: measure.index,
      tick: measure.columns.reduce((best, c) => (Math.abs(c.x - x) < Math.abs(best.x - x) ? c : best)).tick,
    })
  }
  return undefined
}
