import { present } from '@velvet-porch/core/invariant'
import { xAt, type SystemLayout } from '@velvet-porch/core/output/layout'
import { useEffect, type RefObject } from 'react'
import type { SheetModel, SheetPosition } from './sheetModel.ts'

/** Receives the function that moves the play cursor; called with undefined to hide it. */
export type MoveCursor = (move: (position: SheetPosition | undefined) => void) => void

/** Moves the cursor outside React, so that playing costs no rendering. */
export function usePlayCursor(
  root: RefObject<HTMLDivElement | null>,
  model: SheetModel,
  systems: readonly SystemLayout[],
  systemOf: (m: number) => number,
  zoom: number,
  cursor: MoveCursor | undefined,
): void {
  useEffect(() => {
    if (!cursor) return
    let shown = -1
    cursor((position) => {
      const line = root.current?.querySelector<HTMLElement>('.play-cursor')
      if (!line) return
      const index = position ? systemOf(position.measure) : -1
      const placed = position && systems[index]?.measures.find((m) => m.index === position.measure)
      if (!position || !placed) {
        line.style.display = 'none'
        return
      }
      const box = present(present(root.current).querySelector<HTMLElement>(`[data-system="${index}"]`))
      const page = present(line.parentElement).getBoundingClientRect()
      const own = box.getBoundingClientRect()
      const x = xAt(placed, position.tick, model.tune.measures[position.measure]!.length)
      line.style.display = 'block'
      line.style.left = `${(own.left - page.left) / zoom + x}px`
      line.style.top = `${(own.top - page.top) / zoom + 40}px`
      line.style.height = `${own.height / zoom - 58}px`
      line.dataset.measure = String(model.numbers[position.measure])
      if (index !== shown) box.scrollIntoView({ block: 'nearest', inline: 'nearest', behavior: 'smooth' })
      shown = index
    })
    return () => cursor(() => undefined)
  }, [root, model, systems, systemOf, zoom, cursor])
}
