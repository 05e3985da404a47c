import { present } from '@velvet-porch/core/invariant'
import { useIntersection, useMergedRef } from '@mantine/hooks'
import { hit, xAt } from '@velvet-porch/core/output/layout'
import { memo, useRef, type MouseEvent } from 'react'
import type { Ticks } from '@velvet-porch/core/music'
import { momentsOf, type Cell } from './cells.ts'
import { STAFF_HEIGHT, TAB_GAP, tabY } from './metrics.ts'
import type { SystemPage } from './pages.ts'
import type { SheetPosition } from './sheetModel.ts'
import { StaffLayer } from './StaffLayer.tsx'
import { useLineName } from './useLineName.ts'
import { TabLayer } from './TabLayer.tsx'
import css from './SystemView.module.css'

/** What a click hits besides its moment: a string of the tab, or (0) the staff, in steps below its top line. */
export interface Clicked {
  readonly string: number
  readonly stepsBelow: number
}

interface Props {
  readonly page: SystemPage
  readonly zoom: number
  readonly always: boolean
  /** The selected spot, where it stands in this system. */
  readonly position: SheetPosition | undefined
  /** Marked measures in this system, as `from-to` indices. */
  readonly marked: string
  /** A click; while the sheet is written on also where it hit. */
  readonly onPick: (position: SheetPosition, extend: boolean, at?: Clicked) => void
  /** The pen's value while the sheet is written on. */
  readonly step: Ticks | undefined
  /** The cell under the pen, where it stands in this system. */
  readonly cell: Cell | undefined
}

/** One system: staff, tab and layers. Outside the view it is an empty box of the right height. */
export const SystemView = memo(function SystemView({
  page,
  zoom,
  always,
  position,
  marked,
  onPick,
  step,
  cell,
}: Props) {
  const { model, system, rows, layers, lit } = page
  const { width } = system
  const box = useRef<HTMLDivElement>(null)
  // What is far from the view is not drawn.
  const { ref, entry } = useIntersection<HTMLDivElement>({ rootMargin: '700px' })
  const near = always || (entry?.isIntersecting ?? false)
  const { height } = rows
  const lineName = useLineName(page)
  const pick = (event: MouseEvent) => {
    const { left, top } = present(box.current).getBoundingClientRect()
    const x = (event.clientX - left) / zoom
    const found = hit(system, x)
    if (!found) return
    if (step === undefined) return onPick({ measure: found.measure, tick: found.tick }, event.shiftKey)
    const placed = present(system.measures.find((m) => m.index === found.measure))
    const { length } = model.tune.measures[found.measure]!
    const away = (tick: number) => Math.abs(xAt(placed, tick, length) - x)
    const tick = momentsOf(model, found.measure, step).reduce((best, t) => (away(t) < away(best) ? t : best))
    const strings = model.layer ? (model.setup?.instrument.strings ?? 0) : 0
    const y = (event.clientY - top) / zoom
    const string = Math.round((y - rows.tabTop) / TAB_GAP) + 1
    const inTab = strings > 0 && string >= 1 && string <= strings
    const stepsBelow = Math.round((y - rows.staffTop) / (STAFF_HEIGHT / 8))
    const at = inTab || strings === 0 ? { string: inTab ? string : 0, stepsBelow } : undefined
    onPick({ measure: found.measure, tick }, event.shiftKey, at)
  }
  const bottom = rows.tabBottom + 8
  const chosen = position && system.measures.find((m) => m.index === position.measure)
  const written = cell && system.measures.find((m) => m.index === cell.measure)
  const [from, to] = marked.split('-').map(Number)
  return (
    <div
      ref={useMergedRef(box, ref)}
      className={css.system}
      style={{ height, width }}
      data-system={system.index}
      onClick={pick}
    >
      {near ? (
        <>
          <svg width={width} height={height} style={{ position: 'absolute', inset: 0 }} aria-hidden>
            {marked
              ? system.measures
                  .filter((m) => m.index >= present(from) && m.index <= present(to))
                  .map((m) => (
                    <rect
                      key={m.index}
                      className={css['marked-measure']}
                      x={m.x}
                      y={rows.staffTop - 8}
                      width={m.width}
                      height={bottom - rows.staffTop + 12}
                    />
                  ))
              : null}
            {written && cell ? (
              <rect
                className={css['pen-cell']}
                data-testid="pen-cell"
                x={xAt(written, cell.tick, model.tune.measures[cell.measure]!.length) - 11}
                y={cell.string === 0 ? rows.staffTop - 10 : tabY(rows, cell.string) - 8.5}
                width={22}
                height={cell.string === 0 ? STAFF_HEIGHT + 20 : 17}
                rx={4}
              />
            ) : null}
            {chosen && position && !(cell?.string === 0) ? (
              <rect
                className={css['chosen-column']}
                x={xAt(chosen, position.tick, model.tune.measures[position.measure]!.length) - 9}
                y={rows.staffTop - 10}
                width={18}
                height={bottom - rows.staffTop + 16}
                rx={5}
              />
            ) : null}
          </svg>
          <div style={{ position: 'absolute', inset: 0 }}>
            <StaffLayer page={page} />
          </div>
          <svg
            width={width}
            height={height}
            style={{ position: 'absolute', inset: 0 }}
            role="img"
            aria-label={lineName}
          >
            <TabLayer model={model} system={system} layers={layers} rows={rows} lit={lit} />
          </svg>
        </>
      ) : null}
    </div>
  )
})
