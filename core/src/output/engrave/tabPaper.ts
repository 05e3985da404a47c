import { groupBy } from 'es-toolkit'
import { chordIn } from '../../music/harmony/chordSymbol.ts'
import { layOut, xAt, type LayoutMeasure, type PlacedMeasure, type SystemLayout } from '../layout/systems.ts'
import type { ArrangementDoc } from '../../document/arrangement.ts'
import { rolledChords } from '../../document/rolledChords.ts'
import type { TabNote } from '../../document/tab.ts'
import type { Measure, TuneDoc } from '../../document/tune.ts'
import { type HarmonySegment } from '../../arrange/plan/harmonyLine.ts'
import { countAt } from '../../music/time/count.ts'
import { inFullMeasure } from '../../music/time/metre.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import { rhythmSvg } from './rhythm.ts'
import { el, words } from '../markup.ts'
import { staffRoomIn } from './paperStaff.ts'
import { joinSvg } from './tabJoins.ts'
import { barsSvg, endingSvg, metreSign, metreSvg } from './tabBars.ts'
import { noteSvg, pickSvg, rollSvg } from './tabNotes.ts'
import { GAP, pageOf, stringY, type Page, type PaperOptions } from './tabPage.ts'

/** One line of a printed tab, and where in it what stands. */
export interface TabSystem {
  readonly svg: string
  readonly width: number
  readonly height: number
  readonly from: number
  readonly to: number
  readonly measures: readonly PlacedMeasure[]
  /** The tab's lines from top to bottom, for a mark of what is played. */
  readonly top: number
  readonly bottom: number
}

const HEAD = 20

/** Paper is read from near: gaps are narrower than on the sheet. */
const DENSITY = 0.6

/** The tab of some measures as lines of SVG, black on nothing: for paper, for a lesson file, for any screen. */
export const tabSystems = (tune: TuneDoc, doc: ArrangementDoc, options: PaperOptions): TabSystem[] => [
  ...drawnSystems(tune, doc, options),
]

/** The same line by line, each drawn when it is asked for. */
export function* drawnSystems(
  tune: TuneDoc,
  doc: ArrangementDoc,
  options: PaperOptions,
): Generator<TabSystem, void> {
  const from = options.from ?? 0
  const to = Math.min(options.to ?? tune.measures.length - 1, tune.measures.length - 1)
  const page = pageOf(tune, doc, options)
  const measures = tune.measures.slice(from, to + 1).map((m, i) => layoutMeasure(page, m, from + i))
  const systems = layOut(measures, {
    width: options.width,
    head: page.staff?.head ?? HEAD,
    density: DENSITY,
  })
  for (const s of systems) yield systemSvg(page, s, from)
}

/** Room for signs in a measure, and for names and words at its onsets. */
function layoutMeasure(page: Page, m: Measure, index: number): LayoutMeasure {
  const needs = new Map<Ticks, number>()
  const need = (tick: Ticks, px: number) => needs.set(tick, Math.max(px, needs.get(tick) ?? 0))
  for (const h of chordsIn(page, index))
    need(h.start - page.starts[index]!, 8 * chordName(page, h).length + 6)
  for (const s of page.sung.get(m.id) ?? []) need(s.tick, 7 * Math.max(...s.verses.map((l) => l.length)) + 6)
  const notes = page.notes.get(m.id) ?? []
  for (const n of notes) if (n.bend) need(n.pos.tick, 28)
  const staff = page.staff && staffRoomIn(page.staff, page.tune, index)
  return {
    length: m.length,
    onsets: [...notes.map((n) => n.pos.tick), ...needs.keys(), ...(staff?.onsets ?? [])],
    needs,
    signs: (m.repeatStart ? 10 : 0) + (staff?.signs ?? metreSign(page, index).length * 4),
  }
}

function chordsIn({ harmony, starts, tune }: Page, index: number): HarmonySegment[] {
  const [from, length] = [starts[index]!, tune.measures[index]!.length]
  return harmony.filter((h) => h.start >= from && h.start < from + length)
}

function chordName({ options }: Page, h: HarmonySegment): string {
  const chord = options.layers.chords === 'sounding' ? h.sounding : h.shape
  return chord ? chordIn(options.naming, chord) : h.symbol
}

function systemSvg(page: Page, system: SystemLayout, offset: number): TabSystem {
  const { rows, strings } = page
  const last = system.measures.at(-1)!
  const right = last.x + last.width
  const lines = Array.from({ length: strings }, (_, i) => {
    const y = rows.top + i * GAP
    return el('path', { class: 'tl', d: `M0 ${y}H${right}` })
  })
  const placed = system.measures.map((m) => ({ ...m, index: m.index + offset }))
  const staff = page.staff?.svg(
    { ...system, measures: placed },
    { width: system.width, height: rows.height, top: rows.barTop },
  )
  const body = placed.map((m, i) => measureSvg(page, m, i === 0))
  const spoken = `${page.tune.title}: ${page.numbers[placed[0]!.index]}–${page.numbers[last.index + offset]}`
  return {
    svg: el(
      'svg',
      {
        xmlns: 'http://www.w3.org/2000/svg',
        class: 'tab',
        viewBox: `0 0 ${system.width} ${rows.height}`,
        width: system.width,
        height: rows.height,
        role: 'img',
        'aria-label': spoken,
      },
      staff ?? '',
      ...lines,
      el('path', { class: 'bl', d: `M0.5 ${rows.barTop}V${rows.bottom}` }),
      ...body,
    ),
    width: system.width,
    height: rows.height,
    from: placed[0]!.index,
    to: last.index + offset,
    measures: placed,
    top: rows.top,
    bottom: rows.bottom,
  }
}

function measureSvg(page: Page, placed: PlacedMeasure, first: boolean): string {
  const { rows, tune, options, numbers } = page
  const { layers } = options
  const m = tune.measures[placed.index]!
  const notes = page.notes.get(m.id) ?? []
  const start = page.starts[placed.index]!
  const x = (tick: Ticks) => xAt(placed, tick, m.length)
  const section = tune.sections.find((s) => s.measure === m.id)
  const metre = metreSign(page, placed.index)
  const left = placed.x
  const parts = [
    section ? words({ class: 'sec', x: first ? 0 : left + 3, y: rows.section }, section.name) : '',
    words({ class: 'num', x: first ? 2 : left + 3, y: rows.barTop - 4 }, numbers[placed.index] || ''),
    ...chordsIn(page, placed.index).map((h) =>
      words({ class: 'ch', x: x(h.start - start) - 4, y: rows.chords }, chordName(page, h)),
    ),
    metre ? metreSvg(page, m, left + (m.repeatStart ? 16 : 4) + (first ? 3 : 0)) : '',
    endingSvg(page, placed),
    ...notes.map((n) => noteSvg(page, n, x)),
    ...rolledChords(notes).map((chord) => rollSvg(page, chord, x)),
    ...notes.map((n) => joinSvg(n, page.joinTo.get(n.id), x, (s) => stringY(page, s))),
    layers.rhythm ? rhythmSvg(m, notes, x, rows.rhythm - 20) : '',
    ...(layers.counts
      ? counts(m, notes).map(([t, text]) => words({ class: 'ct', x: x(t), y: rows.counts }, text))
      : []),
    ...onsetsOf(notes).flatMap(([tick, onset]) => [
      layers.picking ? pickSvg(onset, x(tick), rows.picking) : '',
      layers.strings
        ? words({ class: 'ct', x: x(tick), y: rows.strings }, onset.map((n) => n.place.string).join('\u2009'))
        : '',
    ]),
    ...(page.sung.get(m.id) ?? []).flatMap((s) =>
      s.verses.map((l, v) => words({ class: 'ly', x: x(s.tick) - 4, y: rows.lyrics + v * 14 }, l)),
    ),
    barsSvg(page, placed, first),
  ]
  return el('g', { 'data-measure': placed.index }, ...parts)
}

function onsetsOf(notes: readonly TabNote[]): [Ticks, TabNote[]][] {
  return Object.values(groupBy(notes, (n) => n.pos.tick)).map((own) => [
    own[0]!.pos.tick,
    own.sort((a, b) => b.place.string - a.place.string),
  ])
}

function counts(m: Measure, notes: readonly TabNote[]): [Ticks, string][] {
  return onsetsOf(notes).flatMap(([tick]): [Ticks, string][] => {
    const text = countAt(m.metre, inFullMeasure(m, tick))
    return text === undefined ? [] : [[tick, text]]
  })
}
