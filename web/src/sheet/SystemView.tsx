import { hit, xAt, type SystemLayout } from '@velvet-porch/core/layout'
import { memo, useRef, type MouseEvent } from 'react'
import type { Rows } from './metrics.ts'
import type { SheetModel, Spot } from './sheetModel.ts'
import { StaffLayer } from './StaffLayer.tsx'
import { TabLayer, type Lit, type TabLayers } from './TabLayer.tsx'
import { useNear } from './useNear.ts'

interface Props {
  readonly model: SheetModel
  readonly system: SystemLayout
  readonly width: number
  readonly layers: TabLayers
  readonly rows: Rows
  readonly lit?: Lit | undefined
  readonly always: boolean
  /** The selected spot, where it stands in this system. */
  readonly spot: Spot | undefined
  /** Marked measures in this system, as `from-to` indices. */
  readonly marked: string
  readonly onPick: (spot: Spot, extend: boolean) => void
}

/** One system: staff, tab and lanes. Outside the view it is an empty box of the right height. */
export const SystemView = memo(function SystemView({
  model,
  system,
  width,
  layers,
  rows,
  lit,
  always,
  spot,
  marked,
  onPick,
}: Props) {
  const box = useRef<HTMLDivElement>(null)
  const near = useNear(box, always)
  const { height } = rows
  const pick = (event: MouseEvent) => {
    const left = box.current!.getBoundingClientRect().left
    const found = hit(system, event.clientX - left)
    if (found) onPick({ measure: found.measure, tick: found.tick }, event.shiftKey)
  }
  const bottom = rows.tabBottom + 8
  const chosen = spot && system.measures.find((m) => m.index === spot.measure)
  const [from, to] = marked.split('-').map(Number)
  return (
    <div ref={box} className="system" style={{ height }} data-system={system.index} onClick={pick}>
      {near ? (
        <>
          <svg width={width} height={height} style={{ position: 'absolute', inset: 0 }} aria-hidden>
            {marked
              ? system.measures
                  .filter((m) => m.index >= from! && m.index <= to!)
                  .map((m) => (
                    <rect
                      key={m.index}
                      className="marked-measure"
                      x={m.x}
                      y={rows.staffTop - 8}
                      width={m.width}
                      height={bottom - rows.staffTop + 12}
                    />
                  ))
              : null}
            {chosen && spot ? (
              <rect
                className="chosen-column"
                x={xAt(chosen, spot.tick, model.tune.measures[spot.measure]!.length) - 9}
                y={rows.staffTop - 10}
                width={18}
                height={bottom - rows.staffTop + 16}
                rx={5}
              />
            ) : null}
          </svg>
          <div style={{ position: 'absolute', inset: 0 }}>
            <StaffLayer model={model} system={system} width={width} rows={rows} />
          </div>
          <svg width={width} height={height} style={{ position: 'absolute', inset: 0 }}>
            <TabLayer model={model} system={system} layers={layers} rows={rows} lit={lit} />
          </svg>
        </>
      ) : null}
    </div>
  )
})
