import {
  harmonyLine,
  measureAt,
  measureNumbers,
  melodyOf,
  readMelody,
  tidyRegions,
  timelineOf,
  transposeKey,
  unfold,
  WHOLE,
  type Arrival,
  type ArrangementDoc,
  type HarmonySegment,
  type Id,
  type Layer,
  type NoteReading,
  type Region,
  type Setup,
  type Style,
  type TabNote,
  type Timeline,
  type TuneDoc,
  type TuneEvent,
  type Unfolded,
  type Variant,
} from '@velvet-porch/core'
import type { Names } from '../names/useNames.ts'
import { staffOf, type LayoutMeasure, type StaffMeasure } from '@velvet-porch/core/layout'

/** Room for a time signature, in px; the start of a repeat stands after it. */
export const METRE_WIDTH = 26

/** A place on the sheet: a measure index and a tick inside it. */
export interface Spot {
  readonly measure: number
  readonly tick: number
}

/** How a note is reached, and from which. */
export interface Join {
  readonly from: TabNote
  readonly kind: Arrival
}

/** All that the sheet draws, derived from the documents. */
export interface SheetModel {
  readonly tune: TuneDoc
  readonly timeline: Timeline
  readonly unfolded: Unfolded
  readonly numbers: readonly number[]
  readonly staff: readonly StaffMeasure[]
  readonly harmony: readonly HarmonySegment[]
  readonly setup?: Setup
  readonly layer?: Layer
  readonly transposed: number
  readonly notes: ReadonlyMap<number, readonly TabNote[]>
  /** Measures in the style of double stops, by id. */
  readonly doubleStyle: ReadonlySet<Id>
  /** Measures in the bottleneck style, by id. */
  readonly bottleStyle: ReadonlySet<Id>
  /** Verses of words under the melody. */
  readonly verses: number
  /** Events of the melody with words, by measure index. */
  readonly sung: ReadonlyMap<number, readonly TuneEvent[]>
  /** Each melody note against its chord and key, by measure index. */
  readonly readings: ReadonlyMap<number, readonly NoteReading[]>
  /** Other versions of measures; those for a pass are played on it. */
  readonly variants: readonly Variant[]
  /** Notes that the fretting hand reaches from another, by id. */
  readonly joins: ReadonlyMap<Id, Join>
  readonly layoutMeasures: readonly LayoutMeasure[]
  /** Every spot with an onset, in written order: where the arrow keys walk. */
  readonly spots: readonly Spot[]
}

export function sheetModel(
  tune: TuneDoc,
  arrangement?: Pick<ArrangementDoc, 'setup' | 'base' | 'transposed' | 'regions' | 'variants'>,
): SheetModel {
  const timeline = timelineOf(tune.measures)
  const transposed = arrangement?.transposed ?? 0
  const capo = arrangement?.setup.capo[0] ?? 0
  const harmony = harmonyLine(tune, timeline, capo, transposed)
  const staff = staffOf(tune, transposed, arrangement?.setup, arrangement?.base.notes)
  const notes = new Map<number, TabNote[]>()
  for (const n of arrangement?.base.notes ?? []) {
    const m = timeline.indexOf.get(n.pos.measure)
    if (m === undefined) continue
    notes.set(m, [...(notes.get(m) ?? []), n])
  }
  const sungEvents = tune.events.filter((e) => e.voice === 0 && e.lyric !== undefined)
  const sung = new Map<number, TuneEvent[]>()
  for (const e of sungEvents) {
    const m = timeline.indexOf.get(e.pos.measure)!
    sung.set(m, [...(sung.get(m) ?? []), e])
  }
  const layoutMeasures = tune.measures.map((m, i): LayoutMeasure => {
    const signs = staff[i]!
    const chords = harmony
      .filter((h) => h.start >= timeline.starts[i]! && h.start < timeline.starts[i]! + m.length)
      .map((h) => h.start - timeline.starts[i]!)
    const onsets = [...signs.upper, ...signs.lower.filter((s) => s.kind === 'note')].map((s) => s.tick)
    const before = tune.measures[i - 1]
    const metreChange = i === 0 || before!.metre.num !== m.metre.num || before!.metre.den !== m.metre.den
    const keyChange = i > 0 && before!.key.fifths !== m.key.fifths
    const accidentals = signs.upper
      .concat(signs.lower)
      .filter((s) => s.accidental !== undefined && s.tick === 0).length
    const clefSigns = (metreChange ? METRE_WIDTH : 0) + (keyChange ? 30 : 0)
    return {
      length: m.length,
      onsets: [...onsets, ...chords, ...(notes.get(i) ?? []).map((n) => n.pos.tick)],
      needs: needsOf(sung.get(i) ?? [], notes.get(i) ?? []),
      signs: clefSigns + (m.repeatStart ? 14 : 0) + (accidentals ? 8 : 0),
    }
  })
  const spots = layoutMeasures.flatMap((m, measure) => {
    const own = arrangement ? (notes.get(measure) ?? []).map((n) => n.pos.tick) : m.onsets
    return [...new Set(own)].sort((a, b) => a - b).map((tick) => ({ measure, tick }))
  })
  return {
    tune,
    timeline,
    unfolded: unfold(tune.measures),
    numbers: measureNumbers(tune.measures),
    staff,
    harmony,
    transposed,
    notes,
    doubleStyle: measuresIn('double-stops', tune, arrangement?.regions ?? []),
    bottleStyle: measuresIn('bottleneck', tune, arrangement?.regions ?? []),
    verses: Math.max(0, ...sungEvents.map((e) => versesOf(e).length)),
    sung,
    readings: readingsOf(tune, timeline, harmony, transposed),
    variants: (arrangement?.variants ?? []).filter((v) => v.measures.every((id) => timeline.indexOf.has(id))),
    joins: joinsOf(arrangement?.base),
    layoutMeasures,
    spots,
    ...(arrangement ? { setup: arrangement.setup, layer: arrangement.base } : {}),
  }
}

function readingsOf(
  tune: TuneDoc,
  timeline: Timeline,
  harmony: readonly HarmonySegment[],
  transposed: number,
): Map<number, NoteReading[]> {
  const keys = tune.measures.map((m) => transposeKey(m.key, transposed))
  const byMeasure = new Map<number, NoteReading[]>()
  for (const r of readMelody(melodyOf(tune, timeline), transposed, harmony, keys, timeline)) {
    const m = measureAt(timeline, r.start)
    byMeasure.set(m, [...(byMeasure.get(m) ?? []), r])
  }
  return byMeasure
}

function joinsOf(layer: Layer | undefined): Map<Id, Join> {
  const byId = new Map(layer?.notes.map((n) => [n.id, n]))
  return new Map(
    (layer?.spans ?? []).flatMap(({ kind, from, to }) => {
      const first = byId.get(from)
      return first ? [[to, { from: first, kind }] as const] : []
    }),
  )
}

/** The syllables of a note, verse by verse. */
export const versesOf = ({ lyric = '', moreLyrics = [] }: TuneEvent): string[] => [lyric, ...moreLyrics]

/** Mean width of a letter of the words, in px, and the room between two syllables. */
const LETTER = 6.6
const APART = 7

/** Room at an onset: for its words, and for the short notes that stand before the next one. */
function needsOf(words: readonly TuneEvent[], notes: readonly TabNote[]): Map<number, number> {
  const needs = new Map(words.map((e) => [e.pos.tick, wordsWidth(e)]))
  const ticks = [...new Set(notes.map((n) => n.pos.tick))].sort((a, b) => a - b)
  for (const n of notes) {
    const before = ticks[ticks.indexOf(n.pos.tick) - 1]
    if (!n.graces || before === undefined) continue
    needs.set(before, Math.max(needs.get(before) ?? 0, 26 + 11 * n.graces.length))
  }
  return needs
}

const wordsWidth = (event: TuneEvent): number =>
  Math.max(...versesOf(event).map((v) => v.length)) * LETTER + APART

function measuresIn(style: Style, tune: TuneDoc, regions: readonly Region[]): Set<Id> {
  const own = new Set<Id>()
  for (const region of regions.length > 0 ? tidyRegions(tune, regions) : []) {
    if (region.style !== style) continue
    const at = (id: Id) => tune.measures.findIndex((m) => m.id === id)
    for (let i = at(region.from); i <= at(region.to); i++) own.add(tune.measures[i]!.id)
  }
  return own
}

export const chordLabel = (h: HarmonySegment, names: Names): string =>
  h.shape ? names.chord(h.shape) : h.symbol

/** True where the key as it sounds is written with flats. */
export const inFlats = (model: SheetModel): boolean =>
  transposeKey(model.tune.measures[0]!.key, model.transposed).fifths < 0

/** Key as it sounds and as the capo player calls it. */
export function keysOf(model: SheetModel, names: Names): { sounding: string; shape: string } {
  const key = transposeKey(model.tune.measures[0]!.key, model.transposed)
  return { sounding: names.key(key), shape: names.key(transposeKey(key, -(model.setup?.capo[0] ?? 0))) }
}

/** Syllables of a quarter's sixteenths in the usual count "1 e & a" (common practice). */
const COUNT: Readonly<Record<string, string>> = { '0.25': ' e', '0.5': ' &', '0.75': ' a' }

/** The beat of a spot as it is counted, from 1: "2", "2 &", "2 e"; other places in decimals. */
export function beatOf(model: SheetModel, spot: Spot): string {
  const m = model.tune.measures[spot.measure]!
  const unit = WHOLE / m.metre.den
  const offset = m.length < m.nominal && spot.measure === 0 ? m.nominal - m.length : 0
  const beats = Number(((spot.tick + offset) / unit).toFixed(2))
  const syllable = m.metre.den === 4 ? COUNT[String(Number((beats % 1).toFixed(2)))] : undefined
  return syllable ? `${Math.floor(beats) + 1}${syllable}` : String(Number((beats + 1).toFixed(2)))
}
