import { layOut, type LayoutMeasure, type SystemLayout } from '@velvet-porch/core/output/layout'
import { replaceEqualDeep } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { BOX_WIDTH, headWidth, systemRows, type Rows } from './metrics.ts'
import { pageMaker } from './pages.ts'
import type { Ticks } from '@velvet-porch/core/music'
import { EXPRESSION_PARTS, type TabNote } from '@velvet-porch/core/document'
import type { SheetModel } from './sheetModel.ts'
import type { Lit, TabLayers } from './TabLayer.tsx'
import type { SheetView } from './selection.ts'

/** The lines of the page, what stands in each, and how high they are. */
export function useSystems(
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
          marksAbove:
            model.tune.measures.some((m) => m.endings.length > 0) ||
            model.tune.sections.length > 0 ||
            model.feelMarks.size > 0,
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
  const pages = useMemo(
    () => keep.pages(model, systems, { rows, layers, lit }),
    [keep, model, systems, rows, layers, lit],
  )
  return { systems, pages }
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
