import { groupBy } from 'es-toolkit'
import { timelineOf } from '../../document/form/timeline.ts'
import { measureNumbers } from '../../document/form/measureNumbers.ts'
import { chordIn } from '../../music/harmony/chordSymbol.ts'
import { layOut, xAt, type LayoutMeasure, type PlacedMeasure, type SystemLayout } from '../layout/systems.ts'
import type { ArrangementDoc } from '../../document/arrangement.ts'
import { rolledChords } from '../../document/rolledChords.ts'
import type { TabNote } from '../../document/tab.ts'
import type { Measure, TuneDoc } from '../../document/tune.ts'
import { sungIn, type SungAt } from '../../document/verses.ts'
import { OCTAVE } from '../../instrument/setup.ts'
import type { NoteNaming } from '../../music/pitch/noteNaming.ts'
import { harmonyLine, type HarmonySegment } from '../../arrange/plan/harmonyLine.ts'
import { countAt } from '../../music/time/count.ts'
import { inFullMeasure } from '../../music/time/metre.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import { rhythmSvg } from './rhythm.ts'
import { el, words } from './svg.ts'
import {
  isNewMetre,
  METRE_WIDTH,
  paperStaff,
  staffRoomIn,
  type DrawStaff,
  type PaperStaff,
} from './paperStaff.ts'
import { bendSvg, joinSvg } from './tabJoins.ts'

/** What stands over and under the lines of a printed tab. */
export interface PaperLayers {
  readonly chords: 'shapes' | 'sounding' | 'none'
  readonly fingers: boolean
  readonly picking: boolean
  readonly counts: boolean
  readonly strings: boolean
  readonly rhythm: boolean
  readonly lyrics: boolean
  /** The notes on five lines over the tab, where somebody draws them (`PaperOptions.drawStaff`). */
  readonly staff?: boolean
}

export const USUAL_PAPER_LAYERS: PaperLayers = {
  chords: 'shapes',
  fingers: true,
  picking: true,
  counts: false,
  strings: false,
  rhythm: true,
  lyrics: true,
}

export interface PaperOptions {
  /** Room in px: CSS pixels on the screen, 1/96 inch on paper. */
  readonly width: number
  readonly layers: PaperLayers
  readonly naming: NoteNaming
  /** Measures, by index, both ends included; absent: all. */
  readonly from?: number
  readonly to?: number
  readonly drawStaff?: DrawStaff
}

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

const GAP = 12
const HEAD = 20

/** Paper is read from near: gaps are narrower than on the sheet. */
const DENSITY = 0.6

/** The tab of some measures as lines of SVG, black on nothing: for paper, for a lesson file, for any screen. */
export function tabSystems(tune: TuneDoc, doc: ArrangementDoc, options: PaperOptions): TabSystem[] {
  const from = options.from ?? 0
  const to = Math.min(options.to ?? tune.measures.length - 1, tune.measures.length - 1)
  const page = pageOf(tune, doc, options)
  const measures = tune.measures.slice(from, to + 1).map((m, i) => layoutMeasure(page, m, from + i))
  const systems = layOut(measures, {
    width: options.width,
    head: page.staff?.head ?? HEAD,
    density: DENSITY,
  })
  return systems.map((s) => systemSvg(page, s, from))
}

/** What all systems of a tab share. */
interface Page {
  readonly tune: TuneDoc
  readonly doc: ArrangementDoc
  readonly options: PaperOptions
  readonly numbers: readonly number[]
  readonly strings: number
  readonly notes: ReadonlyMap<string, readonly TabNote[]>
  readonly joinTo: ReadonlyMap<string, { readonly from: TabNote; readonly kind: string }>
  readonly sung: ReadonlyMap<string, readonly SungAt[]>
  readonly harmony: readonly HarmonySegment[]
  readonly starts: readonly Ticks[]
  readonly rows: Rows
  readonly staff: PaperStaff | undefined
}

/** Base lines and edges, from the top. */
interface Rows {
  readonly section: number
  readonly chords: number
  /** Top line of the staff; without one, of the tab. */
  readonly barTop: number
  readonly top: number
  readonly bottom: number
  readonly rhythm: number
  readonly counts: number
  readonly picking: number
  readonly strings: number
  readonly lyrics: number
  readonly height: number
}

function pageOf(tune: TuneDoc, doc: ArrangementDoc, options: PaperOptions): Page {
  const { layers, drawStaff } = options
  const { base, setup } = doc
  const timeline = timelineOf(tune.measures)
  const byId = new Map(base.notes.map((n) => [n.id, n]))
  const sung = layers.lyrics ? sungIn(tune) : []
  const verses = Math.max(0, ...sung.map((s) => s.verses.length))
  const harmony = layers.chords === 'none' ? [] : harmonyLine(tune, timeline, setup.capo[0]!, doc.transposed)
  const staff = layers.staff && drawStaff ? paperStaff(tune, doc, drawStaff) : undefined
  return {
    tune,
    doc,
    options,
    numbers: measureNumbers(tune.measures),
    strings: setup.instrument.strings,
    notes: by(base.notes, (n) => n.pos.measure),
    joinTo: new Map(
      base.spans.flatMap((s) => {
        const first = byId.get(s.from)
        return first ? [[s.to, { from: first, kind: s.kind }] as const] : []
      }),
    ),
    sung: by(sung, (s) => s.measure),
    harmony,
    starts: timeline.starts,
    rows: rowsOf(tune, doc, layers, staff, harmony.length > 0, verses),
    staff,
  }
}

function rowsOf(
  tune: TuneDoc,
  doc: ArrangementDoc,
  layers: PaperLayers,
  staff: PaperStaff | undefined,
  chords: boolean,
  verses: number,
): Rows {
  const marks = tune.sections.length > 0 || tune.measures.some((m) => m.endings.length > 0)
  const signs =
    doc.base.notes.some((n) => n.bend || n.accent || n.fermata || n.palmMute) || doc.base.spans.length > 0
  let y = 4
  const section = (y += marks ? 12 : 0)
  const chordLine = (y += chords ? 15 : 0)
  const staffTop = (y += staff ? Math.max(12, staff.above) : 0)
  y += staff ? staff.lines + staff.below : 0
  const top = (y += 12 + (signs ? 12 : 0))
  const bottom = (y += (doc.setup.instrument.strings - 1) * GAP)
  const row = (on: boolean, height: number) => (y += on ? height : 0)
  const rhythm = row(layers.rhythm, 26)
  const counts = row(layers.counts, 15)
  const picking = row(layers.picking, 16)
  row(layers.picking, 12)
  const strings = row(layers.strings, 14)
  const lyrics = row(verses > 0, 16)
  row(verses > 1, (verses - 1) * 14)
  const barTop = staff ? staffTop : top
  return {
    section,
    chords: chordLine,
    barTop,
    top,
    bottom,
    rhythm,
    counts,
    picking,
    strings,
    lyrics,
    height: y + 9,
  }
}

function by<T>(list: readonly T[], key: (item: T) => string): Map<string, T[]> {
  const groups = new Map<string, T[]>()
  for (const x of list) {
    const own = groups.get(key(x))
    if (own) own.push(x)
    else groups.set(key(x), [x])
  }
  return groups
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

/** A metre stands on the staff, or in the tab where there is none. */
function metreSign({ tune, staff }: Page, index: number): string {
  const { metre } = tune.measures[index]!
  return !staff && isNewMetre(tune.measures[index]!, tune.measures[index - 1])
    ? `${metre.num}/${metre.den}`
    : ''
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

/** A wavy line along the strings of a chord that is rolled. */
function rollSvg(page: Page, chord: readonly TabNote[], x: (tick: Ticks) => number): string {
  const strings = chord.map((n) => n.place.string)
  const [from, to] = [stringY(page, Math.min(...strings)) - 5, stringY(page, Math.max(...strings)) + 5]
  const waves = Math.max(1, Math.round((to - from) / 8))
  return el('path', {
    class: 'jo',
    d: `M${x(chord[0]!.pos.tick) - 10} ${from}${'q3 2 0 4t0 4'.repeat(waves)}`,
  })
}

const stringY = ({ rows }: Page, string: number): number => rows.top + (string - 1) * GAP

function metreSvg({ rows, strings }: Page, { metre }: Measure, x: number): string {
  const mid = rows.top + ((strings - 1) / 2) * GAP
  return (
    words({ class: 'me', x: x + 6, y: mid - 2 }, metre.num) +
    words({ class: 'me', x: x + 6, y: mid + 14 }, metre.den)
  )
}

function noteSvg(page: Page, n: TabNote, x: (tick: Ticks) => number): string {
  const { string, fret, harmonic, artificial } = n.place
  const plain = artificial ? `${fret}‹${fret + OCTAVE}›` : harmonic ? `‹${fret}›` : String(fret)
  const text = n.attack === 'muted' ? '×' : plain
  const shown = n.optional ? `(${text})` : text
  const [at, y, half] = [x(n.pos.tick), stringY(page, string), 4.1 * shown.length]
  const graces = (n.graces ?? []).map((g) => g.place.fret).join('')
  const signs = [n.accent ? '>' : '', n.palmMute ? 'P' : ''].filter(Boolean).join(' ')
  return [
    el('rect', { class: 'ha', x: at - half - 1, y: y - 6, width: 2 * half + 2, height: 12 }),
    words({ class: n.role === 'melody' ? 'fr me-l' : 'fr', x: at, y: y + 4.2 }, shown),
    graces ? words({ class: 'gr', x: at - half - 2, y: y + 2 }, graces) : '',
    page.options.layers.fingers && n.left !== 0 && n.attack !== 'bottle'
      ? words({ class: 'fi', x: at + half + 3.5, y: y - 2 }, n.left)
      : '',
    n.bend ? bendSvg(n.bend, n.attack, at + half + (page.options.layers.fingers ? 8 : 2), y) : '',
    signs ? words({ class: 'fi', x: at, y: page.rows.top - 6 }, signs) : '',
    n.fermata
      ? el('path', {
          class: 'jo',
          d: `M${at - 6} ${page.rows.top - 5}a6 5.5 0 0 1 12 0M${at - 0.6} ${page.rows.top - 6}h1.2`,
        })
      : '',
    slidesSvg(n, at - half, at + half + (page.options.layers.fingers ? 7 : 0), y),
    n.vibrato ? el('path', { class: 'jo', d: `M${at + half + 3} ${y - 8}q2 -4 4 0t4 0t4 0` }) : '',
  ].join('')
}

/** Strokes beside a fret: slid into from nowhere, slid off to nowhere. */
function slidesSvg(n: TabNote, left: number, right: number, y: number): string {
  const stroke = (x: number, up: boolean) => `M${x} ${y + (up ? 3.5 : -3.5)}l6 ${up ? -7 : 7}`
  const strokes = [
    n.slideFromBelow ? stroke(left - 7, true) : '',
    n.slideFromAbove ? stroke(left - 7, false) : '',
    n.slideOffUp ? stroke(right + 1, true) : '',
    n.slideOffDown ? stroke(right + 1, false) : '',
  ].join('')
  return strokes === '' ? '' : el('path', { class: 'jo', d: strokes })
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

/** Fingers over the thumb, or the sign of a stroke. */
function pickSvg(onset: readonly TabNote[], x: number, y: number): string {
  const signs = [...new Set(onset.map((n) => n.right))]
  const fingers = signs.filter((s) => s === 'i' || s === 'm' || s === 'a').join('')
  const stroke = signs.find((s) => s === 'down' || s === 'up')
  return [
    fingers ? words({ class: 'pk', x, y }, fingers) : '',
    signs.includes('p') ? words({ class: 'pk', x, y: y + 11 }, 'p') : '',
    stroke
      ? el('path', {
          class: 'jo',
          d: stroke === 'down' ? `M${x - 4} ${y}v-7h8v7` : `M${x - 4} ${y - 8}L${x} ${y}L${x + 4} ${y - 8}`,
        })
      : '',
  ].join('')
}

function endingSvg({ tune, rows }: Page, { index, x, width }: PlacedMeasure): string {
  const [m, before] = [tune.measures[index]!, tune.measures[index - 1]]
  if (m.endings.length === 0) return ''
  const begins = before?.endings.join() !== m.endings.join()
  return (
    el('path', { class: 'en', d: `M${x + 2} ${begins ? rows.section + 2 : 3}V3H${x + width - 5}` }) +
    (begins ? words({ class: 'num', x: x + 6, y: 12 }, `${m.endings.join(', ')}.`) : '')
  )
}

function barsSvg(
  { tune, rows, strings, staff }: Page,
  { index, x, width }: PlacedMeasure,
  first: boolean,
): string {
  const m = tune.measures[index]!
  const right = x + width
  const bar = (at: number, heavy = false) =>
    el('path', { class: heavy ? 'hl' : 'bl', d: `M${at} ${rows.barTop}V${rows.bottom}` })
  const mid = rows.top + ((strings - 1) / 2) * GAP
  const onStaff = staff ? [3 / 8, 5 / 8].map((share) => rows.barTop + staff.lines * share) : []
  const dots = (at: number) =>
    [...onStaff, mid - GAP, mid + GAP].map((cy) => el('circle', { class: 'do', cx: at, cy, r: 1.8 })).join('')
  const heavy = m.barline === 'final' || m.repeatEnd > 1
  // The sign of a repeat follows the metre on a staff.
  const metreRoom = staff && isNewMetre(m, tune.measures[index - 1]) ? METRE_WIDTH : 0
  const begin = x + metreRoom + (first && !staff ? 2 : 1)
  const jump = [
    m.fine ? 'Fine' : '',
    m.jump ? JUMP_TEXT[m.jump] : '',
    m.coda ? 'Coda' : '',
    m.segno ? '§' : '',
  ]
    .filter(Boolean)
    .join(' ')
  return [
    heavy ? bar(right - 1.5, true) + bar(right - 5) : m.barline === 'none' ? '' : bar(right - 0.5),
    m.barline === 'double' ? bar(right - 3.5) : '',
    m.repeatEnd > 1 ? dots(right - 9) : '',
    m.repeatEnd > 2 ? words({ class: 'ct', x: right - 8, y: rows.barTop - 4 }, `×${m.repeatEnd}`) : '',
    m.repeatStart ? bar(begin + 1, true) + bar(begin + 4.5) + dots(begin + 8.5) : '',
    jump ? words({ class: 'ju', x: right - 4, y: rows.barTop - 4 }, jump) : '',
  ].join('')
}

const JUMP_TEXT = {
  daCapo: 'D.C.',
  dalSegno: 'D.S.',
  daCapoAlFine: 'D.C. al Fine',
  daCapoAlCoda: 'D.C. al Coda',
  dalSegnoAlFine: 'D.S. al Fine',
  dalSegnoAlCoda: 'D.S. al Coda',
} as const
