import { knownIn, present } from '@velvet-porch/core/invariant'
import { inFullMeasure, transposeKey, WHOLE, type Ticks } from '@velvet-porch/core/music'
import type { Setup } from '@velvet-porch/core/instrument'
import {
  measureAt,
  measureNumbers,
  melodyOf,
  ticksAt,
  tidyRegions,
  timelineOf,
  unfold,
  feelMarks,
  sungIn,
  type Feel,
  type Arrival,
  type ArrangementDoc,
  type Id,
  type Layer,
  type Region,
  type Style,
  type TabNote,
  type Timeline,
  type TuneDoc,
  type SungAt,
  type Unfolded,
  type Variant,
} from '@velvet-porch/core/document'
import { harmonyLine, readMelody, type HarmonySegment, type NoteReading } from '@velvet-porch/core/arrange'
import type { Names } from '../../ui/names/useNames.ts'
import {
  isNewMetre,
  accidentalsAtHead,
  staffContents,
  staffMeasure,
  staffWriting,
  type StaffMeasure,
} from '@velvet-porch/core/output'
import type { LayoutMeasure } from '@velvet-porch/core/output/layout'
import { derived, type Derived } from './derived.ts'
import { remarkLines } from './remarkLines.ts'

/** Room for a time signature, in px; the start of a repeat stands after it. */
export const METRE_WIDTH = 26

/** A place on the sheet: a measure index and a tick inside it. */
export interface SheetPosition {
  readonly measure: number
  readonly tick: number
}

/** How a note is reached, and from which. */
export interface Join {
  readonly from: TabNote
  readonly kind: Arrival
}

/** All that the sheet draws, derived from the documents. */
export interface SheetModel extends FromMeasures, FromChords, FromEvents {
  readonly tune: TuneDoc
  readonly staff: readonly StaffMeasure[]
  readonly setup?: Setup
  readonly layer?: Layer
  readonly transposed: number
  readonly notes: ReadonlyMap<number, readonly TabNote[]>
  /** Measures in the style of double stops, by id. */
  readonly doubleStyle: ReadonlySet<Id>
  /** Measures in the bottleneck style, by id. */
  readonly bottleStyle: ReadonlySet<Id>
  readonly regions: readonly Region[]
  /** Where another feel begins, by the id of its measure. */
  readonly feelMarks: ReadonlyMap<Id, Feel | 'straight'>
  /** Other versions of measures; those for a pass are played on it. */
  readonly variants: readonly Variant[]
  /** Notes that the fretting hand reaches from another, by id. */
  readonly joins: ReadonlyMap<Id, Join>
  readonly layoutMeasures: readonly LayoutMeasure[]
  /** Every spot with an onset, in written order: where the arrow keys walk. */
  readonly positions: readonly SheetPosition[]
  /** One object for each measure, another as soon as anything that is drawn in it is another. */
  readonly prints: readonly object[]
  /** What it was made from, for the model that follows it after an edit. */
  readonly made: Made
}

/** What follows from the measures alone. */
interface FromMeasures {
  readonly timeline: Timeline
  readonly unfolded: Unfolded
  readonly numbers: readonly number[]
}

/** What follows from measures and chords. */
interface FromChords {
  readonly harmony: readonly HarmonySegment[]
  /** Harmony that begins in each measure. */
  readonly harmonyIn: readonly (readonly HarmonySegment[])[]
  /** Starts of harmony that was only suggested. */
  readonly suggested: ReadonlySet<Ticks>
}

/** What follows from the melody over its chords. */
/** What the melody's notes are in their chords, by measure. */
interface Readings {
  readonly get: (measure: number) => readonly NoteReading[] | undefined
}

interface FromEvents {
  /** Verses of words under the melody. */
  readonly verses: number
  /** Events of the melody with words, by measure index. */
  readonly sung: ReadonlyMap<number, readonly SungAt[]>
  /** Each melody note against its chord and key, by measure index. */
  readonly readings: Readings
}

/** Parts of a model that are kept for the next one. */
interface Made {
  readonly capo: number
  readonly regions: readonly Region[] | undefined
  readonly allVariants: readonly Variant[] | undefined
  readonly fromMeasures: FromMeasures
  readonly fromChords: FromChords
  readonly fromEvents: FromEvents
  readonly frame: Derived<object>
  readonly staff: Derived<StaffMeasure>
  readonly layout: Derived<LayoutMeasure>
  readonly positions: Derived<readonly SheetPosition[]>
  readonly prints: Derived<object>
}

/** One list for all sheets without an arrangement. */
const NO_REGIONS: readonly Region[] = []

type Played = Pick<ArrangementDoc, 'setup' | 'base' | 'transposed' | 'regions' | 'variants'>

/** Makes the models of one sheet, each from the one before it: an edit costs what it changed, not the whole tune. */
export function sheetMaker(): (tune: TuneDoc, arrangement?: Played, plain?: boolean) => SheetModel {
  let before: SheetModel | undefined
  return (tune, arrangement, plain) => (before = sheetModel(tune, arrangement, plain, before))
}

/**
 * Everything that is drawn of a tune and its arrangement.
 * @param plain true where the lower voice is written in single values and rests, however long it rings
 * @param before the model of the state before: what did not change is taken from it
 */
export function sheetModel(
  tune: TuneDoc,
  arrangement?: Played,
  plain = false,
  before?: SheetModel,
): SheetModel {
  const transposed = arrangement?.transposed ?? 0
  const capo = arrangement?.setup.capo[0] ?? 0
  const old = before?.made
  const sameMeasures = before?.tune.measures === tune.measures
  const sameChords =
    sameMeasures &&
    before.tune.chords === tune.chords &&
    before.transposed === transposed &&
    present(old).capo === capo
  const sameEvents = sameChords && before.tune.events === tune.events
  const fromMeasures = sameMeasures ? present(old).fromMeasures : measuresOf(tune)
  const { timeline } = fromMeasures
  const fromChords = sameChords ? present(old).fromChords : chordsOf(tune, timeline, capo, transposed)
  const fromEvents = sameEvents
    ? present(old).fromEvents
    : eventsOf(tune, timeline, fromChords.harmony, transposed)
  const regions = arrangement?.regions
  const sameRegions = sameMeasures && present(old).regions === regions
  const allVariants = arrangement?.variants
  const variants =
    sameMeasures && present(old).allVariants === allVariants
      ? before.variants
      : (allVariants ?? []).filter((v) => v.measures.every((id) => timeline.indexOf.has(id)))
  const doubleStyle = sameRegions ? before.doubleStyle : measuresIn('double-stops', tune, regions ?? [])
  const bottleStyle = sameRegions ? before.bottleStyle : measuresIn('bottleneck', tune, regions ?? [])
  const feels = sameRegions ? before.feelMarks : feelMarks(tune, regions ?? [])
  const notes = notesIn(timeline, arrangement?.base.notes ?? [])
  const joins = joinsOf(arrangement?.base)
  const at = (i: number) => notes.get(i) ?? []

  const writing = staffWriting(transposed, arrangement?.setup, arrangement?.base.notes ?? [], plain)
  const contents = staffContents(tune, timeline, arrangement?.base.notes ?? [])
  const staff = derived(
    old?.staff,
    contents.map(({ measure, events, lower, carried }) => [
      ...[measure, transposed, writing.setup, writing.above, plain, ...events, null, ...lower, null],
      ...carried.flatMap((c) => [c.note, c.until]),
    ]),
    (i) => staffMeasure(contents[i]!, writing),
  )
  const { sung } = fromEvents
  const wordsIn = (i: number) => (sung.get(i) ?? []).flatMap((s) => [s.tick, ...s.verses])
  const layout = derived(
    old?.layout,
    tune.measures.map((m, i) => [
      ...[m, tune.measures[i - 1], staff.made[i], fromChords.harmonyIn[i], ...at(i), null],
      ...wordsIn(i),
    ]),
    (i) =>
      layoutMeasure(tune, i, staff.made[i]!, fromChords.harmonyIn[i]!, timeline, at(i), sung.get(i) ?? []),
    // Another fret takes no other room: then the page is not laid out anew.
    sameRoom,
  )
  const positions = derived(
    old?.positions,
    layout.made.map((m, i) => [arrangement !== undefined, m, ...at(i)]),
    (i) => {
      const own = arrangement ? at(i).map((n) => n.pos.tick) : layout.made[i]!.onsets
      return [...new Set(own)].sort((a, b) => a - b).map((tick) => ({ measure: i, tick }))
    },
  )
  const { sections, tuplets, pins } = tune
  const drawn = [sections, tuplets, pins, transposed, arrangement?.setup, arrangement !== undefined]
  const frame = derived(
    old?.frame,
    [[...drawn, fromMeasures, fromChords, doubleStyle, bottleStyle, feels, fromEvents.verses]],
    () => ({}),
  )
  const eventsIn = (i: number) => contents[i]?.events ?? []
  const prints = derived(
    old?.prints,
    tune.measures.map((_, i) => [
      // What a note is in its chord follows from the notes around it, those of the next measures too.
      ...[
        frame.made[0],
        staff.made[i],
        ...eventsIn(i - 1),
        null,
        ...eventsIn(i + 1),
        null,
        ...at(i),
        null,
        ...at(i - 1),
        null,
        ...wordsIn(i),
        null,
      ],
      ...at(i).flatMap((n) => {
        const join = joins.get(n.id)
        return join ? [join.from, join.kind] : []
      }),
    ]),
    () => ({}),
  )
  return {
    tune,
    ...fromMeasures,
    ...fromChords,
    ...fromEvents,
    staff: staff.made,
    transposed,
    notes,
    doubleStyle,
    bottleStyle,
    regions: regions ?? NO_REGIONS,
    feelMarks: feels,
    variants,
    joins,
    layoutMeasures: layout.made,
    positions: positions === old?.positions ? present(before).positions : positions.made.flat(),
    prints: prints.made,
    made: {
      capo,
      regions,
      allVariants,
      fromMeasures,
      fromChords,
      fromEvents,
      frame,
      staff,
      layout,
      positions,
      prints,
    },
    ...(arrangement ? { setup: arrangement.setup, layer: arrangement.base } : {}),
  }
}

const measuresOf = ({ measures }: TuneDoc): FromMeasures => ({
  timeline: timelineOf(measures),
  unfolded: unfold(measures),
  numbers: measureNumbers(measures),
})

function chordsOf(tune: TuneDoc, timeline: Timeline, capo: number, transposed: number): FromChords {
  const harmony = harmonyLine(tune, timeline, capo, transposed)
  const harmonyIn: HarmonySegment[][] = tune.measures.map(() => [])
  for (const h of harmony) harmonyIn[measureAt(timeline, h.start)]!.push(h)
  const suggested = tune.chords.filter((c) => c.origin === 'suggested').map((c) => ticksAt(timeline, c.pos))
  return { harmony, harmonyIn, suggested: new Set(suggested) }
}

function eventsOf(
  tune: TuneDoc,
  timeline: Timeline,
  harmony: readonly HarmonySegment[],
  transposed: number,
): FromEvents {
  const sung = sungIn(tune)
  return {
    verses: Math.max(0, ...sung.map((s) => s.verses.length)),
    sung: grouped(sung, (s) => knownIn(timeline.indexOf, s.measure)),
    readings: whenAsked(() => {
      const keys = tune.measures.map((m) => transposeKey(m.key, transposed))
      const all = readMelody(melodyOf(tune, timeline), transposed, harmony, keys, timeline)
      return grouped(all, (r) => measureAt(timeline, r.start))
    }),
  }
}

/** The readings, made when they are first asked for: few sheets show them. */
function whenAsked(make: () => ReadonlyMap<number, readonly NoteReading[]>): Readings {
  let made: ReadonlyMap<number, readonly NoteReading[]> | undefined
  return { get: (measure) => (made ??= make()).get(measure) }
}

const notesIn = (timeline: Timeline, notes: readonly TabNote[]): Map<number, TabNote[]> =>
  grouped(
    notes.filter((n) => timeline.indexOf.has(n.pos.measure)),
    (n) => knownIn(timeline.indexOf, n.pos.measure),
  )

/** Things by the index of their measure. */
function grouped<T>(things: readonly T[], measureOf: (thing: T) => number): Map<number, T[]> {
  const groups = new Map<number, T[]>()
  for (const thing of things) {
    const measure = measureOf(thing)
    const group = groups.get(measure)
    if (group) group.push(thing)
    else groups.set(measure, [thing])
  }
  return groups
}

function sameRoom(a: LayoutMeasure, b: LayoutMeasure): boolean {
  const needs = [...(a.needs ?? [])]
  return (
    a.length === b.length &&
    a.signs === b.signs &&
    a.onsets.join() === b.onsets.join() &&
    needs.length === (b.needs?.size ?? 0) &&
    needs.every(([tick, px]) => b.needs?.get(tick) === px)
  )
}

function layoutMeasure(
  tune: TuneDoc,
  index: number,
  signs: StaffMeasure,
  harmony: readonly HarmonySegment[],
  timeline: Timeline,
  notes: readonly TabNote[],
  sung: readonly SungAt[],
): LayoutMeasure {
  const m = tune.measures[index]!
  const before = tune.measures[index - 1]
  const chords = harmony.map((h) => h.start - timeline.starts[index]!)
  const onsets = [...signs.upper, ...signs.lower.filter((s) => s.kind === 'note')].map((s) => s.tick)
  const keyChange = before !== undefined && before.key.fifths !== m.key.fifths
  const accidentals = accidentalsAtHead([...signs.upper, ...signs.lower])
  const clefSigns = (isNewMetre(m, before) ? METRE_WIDTH : 0) + (keyChange ? 30 : 0)
  return {
    length: m.length,
    onsets: [...onsets, ...chords, ...notes.map((n) => n.pos.tick)],
    needs: needsOf(sung, notes),
    signs: clefSigns + (m.repeatStart ? 14 : 0) + accidentals * 8,
  }
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

/** Mean width of a letter of the words, in px, and the room between two syllables. */
const LETTER = 6.6
const APART = 7

/** Mean width of a letter of words to the student, in px, and the room that is made for them at most. */
const REMARK_LETTER = 5.4
const REMARK_ROOM = 110

/** Room at an onset: for its words, and for the short notes that stand before the next one. */
function needsOf(words: readonly SungAt[], notes: readonly TabNote[]): Map<number, number> {
  const needs = new Map(words.map((s) => [s.tick, wordsWidth(s)]))
  const ticks = [...new Set(notes.map((n) => n.pos.tick))].sort((a, b) => a - b)
  for (const n of notes) {
    const lines = n.remark ? remarkLines(n.remark) : []
    const widest = Math.max(0, ...lines.map((l) => l.length)) * REMARK_LETTER
    if (widest > 0) needs.set(n.pos.tick, Math.max(needs.get(n.pos.tick) ?? 0, Math.min(widest, REMARK_ROOM)))
    const before = ticks[ticks.indexOf(n.pos.tick) - 1]
    if (!n.graces || before === undefined) continue
    needs.set(before, Math.max(needs.get(before) ?? 0, 26 + 11 * n.graces.length))
  }
  return needs
}

const wordsWidth = ({ verses }: SungAt): number => Math.max(...verses.map((v) => v.length)) * LETTER + APART

function measuresIn(style: Style, tune: TuneDoc, regions: readonly Region[]): Set<Id> {
  const own = new Set<Id>()
  for (const region of regions.length > 0 ? tidyRegions(tune, regions) : []) {
    if (region.style !== style) continue
    const at = (id: Id) => tune.measures.findIndex((m) => m.id === id)
    for (let i = at(region.from); i <= at(region.to); i++) own.add(tune.measures[i]!.id)
  }
  return own
}

/** A chord as the hand behind the capo calls it, or as it sounds. */
export function chordLabel(h: HarmonySegment, names: Names, sounding = false): string {
  const chord = sounding ? h.sounding : h.shape
  return chord ? names.chord(chord) : h.symbol
}

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
export function beatOf(model: SheetModel, position: SheetPosition): string {
  const m = model.tune.measures[position.measure]!
  const unit = WHOLE / m.metre.den
  const beats = Number((inFullMeasure(m, position.tick) / unit).toFixed(2))
  const syllable = m.metre.den === 4 ? COUNT[String(Number((beats % 1).toFixed(2)))] : undefined
  return syllable ? `${Math.floor(beats) + 1}${syllable}` : String(Number((beats + 1).toFixed(2)))
}
