import { present } from '@velvet-porch/core/invariant'
import { useElementSize, useMergedRef } from '@mantine/hooks'
import { layOut, xAt, type LayoutMeasure, type SystemLayout } from '@velvet-porch/core/output/layout'
import { replaceEqualDeep } from '@tanstack/react-query'
import {
  Fragment,
  useCallback,
  useEffect,
  useMemo,
  useRef,
  useState,
  type KeyboardEvent,
  type ReactNode,
  type RefObject,
} from 'react'
import { useTranslation } from 'react-i18next'
import { BOX_WIDTH, headWidth, systemRows, type Rows } from './metrics.ts'
import { pageMaker } from './pages.ts'
import type { Ticks } from '@velvet-porch/core/music'
import { EXPRESSION_PARTS, type TabNote } from '@velvet-porch/core/document'
import { stepped, type Cell } from './cells.ts'
import type { SheetModel, SheetPosition } from './sheetModel.ts'
import { SpokenPosition } from './SpokenPosition.tsx'
import { SystemView, type Clicked } from './SystemView.tsx'
import type { Lit, TabLayers } from './TabLayer.tsx'
import css from './Sheet.module.css'

export interface MarkedMeasures {
  readonly from: number
  readonly to: number
}

interface Props {
  readonly model: SheetModel
  readonly layers: TabLayers
  readonly position?: SheetPosition | undefined
  readonly onPosition?: ((position: SheetPosition) => void) | undefined
  readonly marked?: MarkedMeasures | undefined
  readonly onMark?: ((marked: MarkedMeasures | undefined) => void) | undefined
  /** Receives the function that moves the play cursor; called with undefined to hide it. */
  readonly cursor?: ((move: (position: SheetPosition | undefined) => void) => void) | undefined
  readonly view?: SheetView
  readonly lit?: Lit | undefined
  /** Present while the sheet is written on. */
  readonly writing?: SheetWriting | undefined
  /** What stands beneath each system, by the indexes of its first and last measure. */
  readonly under?: ((from: number, to: number) => ReactNode) | undefined
}

/** How the page is laid out; it must keep its identity while it stays the same. */
export interface SheetView {
  readonly printing?: boolean
  /** Measures a line; 0: as they fit. */
  readonly perLine?: number
  /** One line that runs on, instead of lines on a page. */
  readonly runsOn?: boolean
  /** Size of the sheet; 1 is as designed. */
  readonly zoom?: number
}

const AS_DESIGNED: SheetView = {}

/** Where the pen stands and how it walks; string 0 is the staff. */
export interface SheetWriting {
  readonly cell: Cell | undefined
  readonly onCell: (cell: Cell, stepsBelow?: number) => void
  /** The pen's value: it walks and clicks in such steps. */
  readonly step: Ticks
}

const NOTHING = () => undefined

/** The score page: systems on paper, walked by keys, clicked by mouse, followed by the play cursor. */
export function Sheet({
  model,
  layers,
  position,
  onPosition,
  marked,
  onMark,
  cursor,
  view = AS_DESIGNED,
  lit,
  writing,
  under,
}: Props) {
  const { t } = useTranslation()
  const { printing = false, runsOn = false, zoom = 1 } = view
  const root = useRef<HTMLDivElement>(null)
  const { ref: sizeRef, width } = useElementSize<HTMLDivElement>()
  const ref = useMergedRef(root, sizeRef)
  const { systems, rows, pages } = useSystems(model, layers, width, view, lit)
  const systemOf = useCallback(
    (measure: number) => systems.findIndex((s) => measure <= s.measures.at(-1)!.index),
    [systems],
  )
  const onCell = writing?.onCell
  const pick = useCallback(
    (next: SheetPosition, extend: boolean, at?: Clicked) => {
      if (extend && onMark) {
        const anchor = position?.measure ?? next.measure
        onMark({ from: Math.min(anchor, next.measure), to: Math.max(anchor, next.measure) })
      } else if (onCell && at) {
        onMark?.(undefined)
        onCell({ ...next, string: at.string }, at.stepsBelow)
      } else onPosition?.(nearestPosition(model, next))
    },
    [model, onCell, onMark, onPosition, position],
  )
  const steadyPick = useSteady(pick)
  usePlayCursor(root, model, systems, systemOf, zoom, cursor)
  useKeepInView(root, position, systemOf)
  const onKey = sheetKeys({ model, position, onPosition, marked, onMark, writing, systems, systemOf, pick })
  return (
    <div
      className={printing ? undefined : runsOn ? `sheet ${css['runs-on']}` : 'sheet'}
      tabIndex={onPosition ? 0 : undefined}
      role="group"
      aria-label={t('sheet.label', { title: model.tune.title })}
      aria-describedby={onPosition ? 'sheet-help' : undefined}
      onKeyDown={onPosition ? onKey : undefined}
    >
      {onPosition ? (
        <span id="sheet-help" hidden>
          {t('sheet.help')}
        </span>
      ) : null}
      <div ref={ref} className={css.systems} style={zoom === 1 ? undefined : { zoom }} data-testid="systems">
        {pages.map((page) => {
          const { system } = page
          const [first, last] = [system.measures[0]!.index, system.measures.at(-1)!.index]
          const holds = (measure: number) => measure >= first && measure <= last
          return (
            <Fragment key={system.index}>
              <SystemView
                page={page}
                zoom={zoom}
                layers={layers}
                rows={rows}
                always={printing}
                position={position && holds(position.measure) ? position : undefined}
                marked={
                  marked && marked.from <= last && marked.to >= first ? `${marked.from}-${marked.to}` : ''
                }
                onPick={onPosition ? steadyPick : NOTHING}
                step={writing?.step}
                cell={writing?.cell && holds(writing.cell.measure) ? writing.cell : undefined}
              />
              {under?.(first, last)}
            </Fragment>
          )
        })}
        <div
          className={css['play-cursor']}
          data-testid="play-cursor"
          style={{ position: 'absolute', width: 2, display: 'none', background: 'var(--rust)' }}
        />
      </div>
      {onPosition ? <SpokenPosition model={model} position={position} cell={writing?.cell} /> : null}
    </div>
  )
}

/** The lines of the page, what stands in each, and how high they are. */
function useSystems(
  model: SheetModel,
  layers: TabLayers,
  width: number,
  { printing = false, perLine = 0, runsOn = false }: SheetView,
  lit: Lit | undefined,
) {
  const fifths = model.staff[0]!.key.fifths
  const { layoutMeasures, harmonyIn, timeline } = model
  const measures = useMemo(
    () => (layers.boxes ? withBoxes(layoutMeasures, harmonyIn, timeline.starts) : layoutMeasures),
    [layers.boxes, layoutMeasures, harmonyIn, timeline],
  )
  const [keep] = useState(keeper)
  const systems = useMemo(
    () =>
      width > 0
        ? keep.systems(
            layOut(measures, {
              width,
              head: headWidth(fifths),
              density: printing ? 0.68 : width < 560 ? 0.8 : 1,
              ...(perLine > 0 ? { mostMeasures: perLine } : {}),
              runsOn,
            }),
          )
        : [],
    [keep, measures, width, fifths, printing, perLine, runsOn],
  )
  const rows = useMemo(
    () =>
      keep.rows(
        systemRows(model.staff, {
          marksAbove: model.tune.measures.some((m) => m.endings.length > 0) || model.tune.sections.length > 0,
          strings: model.layer ? (model.setup?.instrument.strings ?? 6) : 0,
          picking: layers.picking,
          intervals: layers.intervals && model.doubleStyle.size > 0,
          verses: model.verses,
          counts: layers.counts,
          degrees: layers.degrees,
          stringNumbers: layers.strings,
          boxes: layers.boxes && model.layer !== undefined,
          remarks: layers.remarks && (model.layer?.notes.some((n) => n.remark) ?? false),
          signs: model.layer?.notes.some(hasSign) ?? false,
        }),
      ),
    [keep, model, layers],
  )
  const pages = useMemo(() => keep.pages(model, systems, lit), [keep, model, systems, lit])
  return { systems, rows, pages }
}

interface KeysOfSheet extends Pick<
  Props,
  'model' | 'position' | 'onPosition' | 'marked' | 'onMark' | 'writing'
> {
  readonly systems: readonly SystemLayout[]
  readonly systemOf: (measure: number) => number
  readonly pick: (next: SheetPosition, extend: boolean) => void
}

/** What a key does on the page: it walks, marks measures, or moves the pen. */
function sheetKeys({
  model,
  position,
  onPosition,
  marked,
  onMark,
  writing,
  systems,
  systemOf,
  pick,
}: KeysOfSheet): (event: KeyboardEvent) => void {
  return (event) => {
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

/** True for a note with a sign over the tab. */
const hasSign = (n: TabNote) =>
  Boolean(n.letRing ?? n.palmMute ?? n.accent ?? n.staccato ?? n.fermata) ||
  EXPRESSION_PARTS.some((part) => n[part] !== undefined)

/** What a sheet keeps from one state of the page to the next, so that what stays the same is not drawn again. */
const keeper = () => ({
  systems: keepingEqual<readonly SystemLayout[]>(),
  rows: keepingEqual<Rows>(),
  pages: pageMaker(),
})

/** Hands back the value before wherever the next one is equal to it, part by part. */
function keepingEqual<T>(): (next: T) => T {
  let before: T | undefined
  return (next) => (before = replaceEqualDeep<T>(before, next))
}

/** A function that stays the same one, and does what the latest one does. */
function useSteady<A extends unknown[]>(latest: (...args: A) => void): (...args: A) => void {
  const ref = useRef(latest)
  useEffect(() => {
    ref.current = latest
  })
  return useCallback((...args: A) => ref.current(...args), [])
}

/** Measures with room for a chord box at every chord. */
function withBoxes(
  measures: readonly LayoutMeasure[],
  harmonyIn: SheetModel['harmonyIn'],
  starts: readonly Ticks[],
): readonly LayoutMeasure[] {
  return measures.map((m, i) => {
    const chords = harmonyIn[i]!
    if (chords.length === 0) return m
    const needs = new Map(m.needs)
    // The room may be shared by all that stands between two chords.
    chords.forEach((h, k) => {
      const from = h.start - starts[i]!
      const to = chords[k + 1] ? chords[k + 1]!.start - starts[i]! : m.length
      const between = new Set(m.onsets.filter((t) => t >= from && t < to))
      for (const t of between)
        needs.set(t, Math.max(needs.get(t) ?? 0, (BOX_WIDTH + 4) / Math.max(1, between.size)))
    })
    return { ...m, needs }
  })
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

function nearestPosition(model: SheetModel, wanted: SheetPosition): SheetPosition {
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

/** Moves the cursor outside React, so that playing costs no rendering. */
function usePlayCursor(
  root: RefObject<HTMLDivElement | null>,
  model: SheetModel,
  systems: readonly SystemLayout[],
  systemOf: (m: number) => number,
  zoom: number,
  cursor: Props['cursor'],
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

function useKeepInView(
  root: RefObject<HTMLDivElement | null>,
  position: SheetPosition | undefined,
  systemOf: (m: number) => number,
): void {
  const index = position ? systemOf(position.measure) : -1
  const first = useRef(true)
  useEffect(() => {
    if (first.current) {
      first.current = false
      return
    }
    root.current
      ?.querySelector(`[data-system="${index}"]`)
      ?.scrollIntoView({ block: 'nearest', inline: 'nearest' })
  }, [root, index])
}
