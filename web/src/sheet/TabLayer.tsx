import { pitchAt } from '@velvet-porch/core'
import { xAt, type PlacedMeasure, type SystemLayout } from '@velvet-porch/core/layout'
import { Fragment } from 'react'
import { useTranslation } from 'react-i18next'
import { STAFF_SCALE, TAB_GAP, type Rows } from './metrics.ts'
import { useNames } from '../names/useNames.ts'
import { chordLabel, inFlats, METRE_WIDTH, type SheetModel } from './sheetModel.ts'

const tabY = (rows: Rows, string: number) => rows.tabTop + (string - 1) * TAB_GAP

export interface TabLayers {
  readonly fingers: boolean
  readonly picking: boolean
}

/** Tab and text lanes of one system, at the x of the layout contract. */
export function TabLayer({
  model,
  system,
  layers,
  rows,
}: {
  model: SheetModel
  system: SystemLayout
  layers: TabLayers
  rows: Rows
}) {
  const strings = model.layer ? (model.setup?.instrument.strings ?? 6) : 0
  const end = system.measures.at(-1)!
  const right = end.x + end.width
  return (
    <g>
      {Array.from({ length: strings }, (_, s) => (
        <line key={s} className="tab-line" x1={0} x2={right} y1={tabY(rows, s + 1)} y2={tabY(rows, s + 1)} />
      ))}
      {strings > 0 ? (
        <line className="bar-line" x1={0.5} x2={0.5} y1={rows.staffTop} y2={rows.tabBottom} />
      ) : null}
      {system.measures.map((placed, k) => (
        <MeasureLanes
          key={placed.index}
          model={model}
          placed={placed}
          first={k === 0}
          layers={layers}
          strings={strings}
          rows={rows}
        />
      ))}
    </g>
  )
}

function MeasureLanes({
  model,
  placed,
  first,
  layers,
  strings,
  rows,
}: {
  model: SheetModel
  placed: PlacedMeasure
  first: boolean
  layers: TabLayers
  strings: number
  rows: Rows
}) {
  const names = useNames()
  const { t } = useTranslation()
  const measure = model.tune.measures[placed.index]!
  const start = model.timeline.starts[placed.index]!
  const chords = model.harmony.filter((h) => h.start >= start && h.start < start + measure.length)
  const marks = new Map(
    model.tune.chords.map((c) => [
      model.timeline.starts[model.timeline.indexOf.get(c.pos.measure)!]! + c.pos.tick,
      c,
    ]),
  )
  const section = model.tune.sections.find((s) => s.measure === measure.id)
  const notes = model.notes.get(placed.index) ?? []
  const x = (tick: number) => xAt(placed, tick, measure.length)
  return (
    <g>
      {section?.name ? (
        <text className="section-name" x={first ? 0 : placed.x + 4} y={12}>
          {section.name}
        </text>
      ) : null}
      <text className="measure-number" x={first ? 2 : placed.x + 3} y={rows.staffTop - 6}>
        {model.numbers[placed.index] || ''}
      </text>
      {chords.map((h) => (
        <text
          key={h.start}
          className={`chord-name${marks.get(h.start)?.origin === 'suggested' ? ' suggested' : ''}${h.shape ? '' : ' unknown'}`}
          x={x(h.start - start) - 5}
          y={rows.chords}
        >
          {chordLabel(h, names)}
        </text>
      ))}
      <Endings model={model} placed={placed} rows={rows} />
      {notes.map((n) => {
        const text = String(n.place.fret)
        const at = x(n.pos.tick)
        const y = tabY(rows, n.place.string)
        const name = model.setup ? names.pitch(pitchAt(model.setup, n.place), inFlats(model)) : ''
        return (
          <Fragment key={n.id}>
            <rect
              className="tab-halo"
              x={at - 4.6 * text.length - 1}
              y={y - 7}
              width={9.2 * text.length + 2}
              height={14}
            />
            <text className={`tab-fret ${n.role}`} x={at} y={y + 4.8} data-note={n.id}>
              {text}
              <title>
                {n.place.fret === 0
                  ? t('sheet.openNote', { name, string: n.place.string })
                  : t('sheet.note', { name, string: n.place.string, fret: n.place.fret })}
              </title>
            </text>
            {layers.fingers && n.left !== 0 ? (
              <text className="finger" x={at + 4.6 * text.length + 4.5} y={y - 2.5}>
                {n.left}
              </text>
            ) : null}
            {layers.picking ? (
              <text className="pick" x={at} y={rows.picking + (n.role === 'bass' ? 14 : 0)}>
                {n.right}
              </text>
            ) : null}
          </Fragment>
        )
      })}
      <BarLines model={model} placed={placed} first={first} rows={rows} tab={strings > 0} />
    </g>
  )
}

function BarLines({
  model,
  placed,
  first,
  rows,
  tab,
}: {
  model: SheetModel
  placed: PlacedMeasure
  first: boolean
  rows: Rows
  tab: boolean
}) {
  const measure = model.tune.measures[placed.index]!
  const right = placed.x + placed.width
  const heavy = measure.barline === 'final' || measure.repeatEnd > 1
  const bottom = tab ? rows.tabBottom : rows.staffTop + 40 * STAFF_SCALE
  const line = (x: number, heavyLine = false) => (
    <line className={heavyLine ? 'bar-heavy' : 'bar-line'} x1={x} x2={x} y1={rows.staffTop} y2={bottom} />
  )
  const start = placed.x + (first && placed.index === 0 ? METRE_WIDTH : 0)
  return (
    <g>
      {heavy ? line(right - 2, true) : measure.barline === 'none' ? null : line(right - 0.5)}
      {heavy ? line(right - 6.5) : measure.barline === 'double' ? line(right - 4) : null}
      {measure.repeatEnd > 1 ? <Dots x={right - 11} rows={rows} tab={tab} /> : null}
      {measure.repeatStart ? (
        <>
          {line(start + 2, true)}
          {line(start + 6.5)}
          <Dots x={start + 11} rows={rows} tab={tab} />
        </>
      ) : null}
    </g>
  )
}

function Dots({ x, rows, tab }: { x: number; rows: Rows; tab: boolean }) {
  const gap = 10 * STAFF_SCALE
  const ys = [
    rows.staffTop + gap * 1.5,
    rows.staffTop + gap * 2.5,
    ...(tab ? [tabY(rows, 2.5), tabY(rows, 4.5)] : []),
  ]
  return ys.map((y) => <circle key={y} cx={x} cy={y} r={2.2} fill="var(--ink)" />)
}

function Endings({ model, placed, rows }: { model: SheetModel; placed: PlacedMeasure; rows: Rows }) {
  const measure = model.tune.measures[placed.index]!
  if (measure.endings.length === 0) return null
  const before = model.tune.measures[placed.index - 1]
  const starts = before?.endings.join() !== measure.endings.join()
  const left = placed.x + 2
  return (
    <g>
      <path
        className="ending-line"
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
