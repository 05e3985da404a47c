import type { Ticks } from '../../music/time/ticks.ts'

/**
 * The layout contract: ticks to x, systems, hit regions. Staff, tab, layers, cursor, selection and print all stand on
 * these numbers, so that they can never disagree. Lengths are CSS pixels.
 */
export interface LayoutMeasure {
  readonly length: Ticks
  /** Ticks inside the measure at which something stands; unsorted and repeated ones are fine. */
  readonly onsets: readonly Ticks[]
  /** Room that something at an onset needs to its right, in px: a syllable, a name. */
  readonly needs?: ReadonlyMap<Ticks, number>
  /** Room before the first onset for signs that stand in this measure wherever it falls. */
  readonly signs: number
}

export interface LayoutOptions {
  readonly width: number
  /** Room at the head of each system for clef and key. */
  readonly head: number
  /** Scale of all gaps; 1 suits a laptop. */
  readonly density: number
  readonly mostMeasures?: number
  /** One line that runs on instead of a page of lines: it comes in pieces, only the first of which has a clef. */
  readonly runsOn?: boolean
}

export interface Column {
  readonly tick: Ticks
  readonly x: number
}

export interface PlacedMeasure {
  readonly index: number
  /** Left bar line and width. */
  readonly x: number
  readonly width: number
  readonly columns: readonly Column[]
}

export interface SystemLayout {
  readonly index: number
  readonly measures: readonly PlacedMeasure[]
  /** Room for clef and key at its head; 0 where it goes on from the piece before. */
  readonly head: number
  readonly width: number
}

/** Measures in one piece of a line that runs on. */
const PIECE = 4

const PAD = { before: 18, after: 12, narrowest: 17 }
const QUARTER_GAP = 46
const QUARTER_TICKS = 10_080

/** Gap after an onset: grows with duration^0.6, which looks even (from trying). */
function gap(ticks: Ticks, density: number): number {
  return Math.max(PAD.narrowest, QUARTER_GAP * (ticks / QUARTER_TICKS) ** 0.6 * density)
}

interface Natural {
  readonly ticks: readonly Ticks[]
  readonly gaps: readonly number[]
  readonly width: number
}

function natural(measure: LayoutMeasure, density: number): Natural {
  const ticks = [...new Set([0, ...measure.onsets])].filter((t) => t < measure.length).sort((a, b) => a - b)
  const gaps = ticks.map((t, i) =>
    Math.max(gap((ticks[i + 1] ?? measure.length) - t, density), measure.needs?.get(t) ?? 0),
  )
  return { ticks, gaps, width: PAD.before + measure.signs + PAD.after + gaps.reduce((a, b) => a + b, 0) }
}

/** Breaks measures into systems and places every onset. A last system that is short keeps its natural width. */
export function layOut(measures: readonly LayoutMeasure[], options: LayoutOptions): SystemLayout[] {
  const naturals = measures.map((m) => natural(m, options.density))
  const { width, runsOn = false } = options
  const systems: SystemLayout[] = []
  for (let from = 0; from < measures.length;) {
    const head = runsOn && from > 0 ? 0 : options.head
    const room = runsOn ? Infinity : width - head
    const most = runsOn ? PIECE : (options.mostMeasures ?? Infinity)
    const { to, used } = fitting(naturals, from, room, most)
    const stretch = runsOn || to === measures.length ? LAST_STRETCH : Infinity
    const { measures: placed, end } = place(measures, naturals, from, to, head, used, room, stretch)
    systems.push({ index: systems.length, measures: placed, head, width: runsOn ? end : width })
    from = to
  }
  return systems
}

/** Up to which measure a system goes, and the room that its measures take by nature. */
function fitting(
  naturals: readonly Natural[],
  from: number,
  room: number,
  most: number,
): { readonly to: number; readonly used: number } {
  let to = from
  let used = 0
  while (to < naturals.length && (to === from || used + naturals[to]!.width <= room) && to - from < most)
    used += naturals[to++]!.width
  return { to, used }
}

/** How far a system that need not fill its line is stretched. */
const LAST_STRETCH = 1.35

function place(
  measures: readonly LayoutMeasure[],
  naturals: readonly Natural[],
  from: number,
  to: number,
  head: number,
  used: number,
  room: number,
  most: number,
): { readonly measures: readonly PlacedMeasure[]; readonly end: number } {
  let fixed = 0
  for (let i = from; i < to; i++) fixed += PAD.before + PAD.after + measures[i]!.signs
  const stretch = Math.min((room - fixed) / Math.max(1, used - fixed), most)
  let x = head
  const placed: PlacedMeasure[] = []
  for (let i = from; i < to; i++) {
    const { ticks, gaps } = naturals[i]!
    let at = x + PAD.before + measures[i]!.signs
    const columns = ticks.map((tick, k) => {
      const column = { tick, x: at }
      at += gaps[k]! * stretch
      return column
    })
    const end = at + PAD.after
    placed.push({ index: i, x, width: end - x, columns })
    x = end
  }
  return { measures: placed, end: x }
}

/** x of a tick inside a placed measure, between columns in proportion. */
export function xAt(measure: PlacedMeasure, tick: Ticks, length: Ticks): number {
  const { columns } = measure
  let i = 0
  while (i + 1 < columns.length && columns[i + 1]!.tick <= tick) i++
  const a = columns[i]!
  const next = columns[i + 1]
  const endTick = next?.tick ?? length
  const endX = next?.x ?? measure.x + measure.width - PAD.after
  const share = endTick > a.tick ? Math.min(1, (tick - a.tick) / (endTick - a.tick)) : 0
  return a.x + (endX - a.x) * share
}

/** What a click at x means: the measure and the nearest onset to its left or right. */
export function hit(
  system: SystemLayout,
  x: number,
): { readonly measure: number; readonly tick: Ticks } | undefined {
  const measure = system.measures.find((m) => x < m.x + m.width) ?? system.measures.at(-1)
  if (!measure) return undefined
  let best = measure.columns[0]!
  for (const c of measure.columns) if (Math.abs(c.x - x) < Math.abs(best.x - x)) best = c
  return { measure: measure.index, tick: best.tick }
}
