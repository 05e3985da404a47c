import type { PlacedMeasure } from '@velvet-porch/core/output/layout'
import { STAFF_SCALE, tabY, type Rows } from './metrics.ts'
import { METRE_WIDTH, type SheetModel } from './sheetModel.ts'
import css from './BarLines.module.css'
import sheetCss from './sheet.module.css'

export function BarLines({
  model,
  placed,
  first,
  rows,
  strings,
}: {
  model: SheetModel
  placed: PlacedMeasure
  first: boolean
  rows: Rows
  strings: number
}) {
  const measure = model.tune.measures[placed.index]!
  const right = placed.x + placed.width
  const heavy = measure.barline === 'final' || measure.repeatEnd > 1
  const bottom = strings > 0 ? rows.tabBottom : rows.staffTop + 40 * STAFF_SCALE
  const line = (x: number, heavyLine = false) => (
    <line
      className={heavyLine ? css['bar-heavy'] : sheetCss['bar-line']}
      x1={x}
      x2={x}
      y1={rows.staffTop}
      y2={bottom}
    />
  )
  const start = placed.x + (first && placed.index === 0 ? METRE_WIDTH : 0)
  return (
    <g>
      {heavy ? line(right - 2, true) : measure.barline === 'none' ? null : line(right - 0.5)}
      {heavy ? line(right - 6.5) : measure.barline === 'double' ? line(right - 4) : null}
      {measure.repeatEnd > 1 ? <Dots x={right - 11} rows={rows} strings={strings} /> : null}
      {measure.repeatStart ? (
        <>
          {line(start + 2, true)}
          {line(start + 6.5)}
          <Dots x={start + 11} rows={rows} strings={strings} />
        </>
      ) : null}
    </g>
  )
}

function Dots({ x, rows, strings }: { x: number; rows: Rows; strings: number }) {
  const gap = 10 * STAFF_SCALE
  const ys = [
    rows.staffTop + gap * 1.5,
    rows.staffTop + gap * 2.5,
    ...(strings > 0 ? [tabY(rows, (strings - 1) / 2), tabY(rows, (strings + 3) / 2)] : []),
  ]
  return ys.map((y) => <circle key={y} cx={x} cy={y} r={2.2} fill="var(--ink)" />)
}

export function Endings({ model, placed, rows }: { model: SheetModel; placed: PlacedMeasure; rows: Rows }) {
  const measure = model.tune.measures[placed.index]!
  if (measure.endings.length === 0) return null
  const before = model.tune.measures[placed.index - 1]
  const starts = before?.endings.join() !== measure.endings.join()
  const left = placed.x + 2
  return (
    <g>
      <path
        className={css['ending-line']}
        d={`M ${left} ${starts ? rows.top : 2} V 2 H ${placed.x + placed.width - 6}`}
      />
      {starts ? (
        <text className="ending" x={left + 5} y={14}>
          {measure.endings.join(', ')}.
        </text>
      ) : null}
    </g>
  )
}
