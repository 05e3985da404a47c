import { SLIDE_MARKS } from '../../document/marks.ts'
import { knownIn } from '../../invariant.ts'
import { EXPRESSION_PARTS } from '../../document/expression.ts'
import type { AuditReport } from '../../audit/audit.ts'
import type { FinishedTab, HeldGrip, SourceNote, WrittenNote } from '../../audit/finishedTab.ts'
import { measureNumbers } from '../../document/form/measureNumbers.ts'
import { measureAt, ticksAt, type MelodyNote } from '../../document/form/timeline.ts'
import {
  bassPitchClass,
  chordPitchClasses,
  chordText,
  readChordSymbol,
} from '../../music/harmony/chordSymbol.ts'
import type { Layer, Region } from '../../document/arrangement.ts'
import { canSwing } from '../../document/swing.ts'
import { isAccompaniment, isSolo, OTHER_TUNE_STYLES, type Level, type Style } from '../../document/style.ts'
import { USUAL_SCHOOL } from '../../document/school.ts'
import type { ChordMark, TuneDoc } from '../../document/tune.ts'
import type { PickingSchool, Player } from '../../instrument/hand.ts'
import type { InstrumentKind } from '../../instrument/instruments.ts'
import { pitchAt, type Setup } from '../../instrument/setup.ts'
import { hasBassStrings, strumsWhole } from '../../arrange/plan/styleRules.ts'
import { setupOf } from '../../instrument/setupOf.ts'
import { keyText } from '../../music/pitch/key.ts'
import { midiOf } from '../../music/pitch/pitch.ts'
import { pickingOf } from '../../arrange/plan/pickingOf.ts'
import type { Plan } from '../../arrange/plan/plan.ts'
import { isCounted, inFullMeasure } from '../../music/time/metre.ts'
import { ringOf } from '../../hand/ring/ring.ts'

/** What `porch arrange --json` prints. Version 1; fields are added, never changed or removed. */
export interface TabJson {
  readonly schemaVersion: 1
  readonly tune: {
    readonly title: string
    readonly measures: readonly {
      index: number
      number: number
      start: number
      length: number
      metre: string
      key: string
      /** What the measure is arranged as. */
      style?: Style
      level?: Level
      /** How it is picked. */
      picking?: PickingSchool
      /** True where the style lets harmony lie over the melody. */
      harmonyAbove?: boolean
      /** True where somebody sings the melody and the tab accompanies. */
      sung?: boolean
    }[]
    /** Measure indices in played order. */
    readonly order: readonly number[]
    readonly tempos: readonly { start: number; bpm: number }[]
  }
  /** `tuning` from the lowest string; `instrument` and `player` are a guitar and an adult hand where absent. */
  readonly setup: {
    readonly tuning: readonly number[]
    readonly capo: number
    readonly instrument?: InstrumentKind
    readonly player?: Player
  }
  readonly transposed: number
  /** The melody that the tab plays. */
  readonly source: readonly SourceNote[]
  /** The melody of measures that are accompanied. */
  readonly sung?: readonly SourceNote[]
  readonly notes: readonly WrittenNote[]
  /** All fingers that are down, from `start` to the next grip's. */
  readonly grips?: readonly HeldGrip[]
  /** `symbol` is the shape behind the capo, `sounding` what is heard; equal without a capo. */
  readonly chords: readonly {
    start: number
    symbol: string
    sounding: string
    rootWanted?: boolean
    origin?: ChordMark['origin']
  }[]
  readonly audit?: AuditReport
  readonly warnings: readonly string[]
  readonly elapsedMs: number
}

/** Writes an arranged tune as the stable JSON object, without its audit. */
export function tabJson(
  tune: TuneDoc,
  setup: Setup,
  plan: Plan,
  layer: Layer,
  warnings: readonly string[],
  elapsedMs: number,
): TabJson {
  const { timeline } = plan
  const numbers = measureNumbers(tune.measures)
  const rings = ringOf(layer, timeline)
  const origins = new Map(tune.chords.map((c) => [ticksAt(timeline, c.pos), c.origin]))
  const feels = tune.measures.map((m, i) => (canSwing(m) ? plan.regions[i]?.feel : undefined))
  return {
    schemaVersion: 1,
    tune: {
      title: tune.title,
      measures: tune.measures.map((m, i) => ({
        index: i,
        number: numbers[i]!,
        start: timeline.starts[i]!,
        length: m.length,
        metre: `${m.metre.num}/${m.metre.den}`,
        key: keyText(m.key),
        ...styleOf(plan, setup, i),
        ...(plan.regions[i]?.given ? { given: true } : {}),
        ...(feels[i] ? { feel: feels[i] } : {}),
      })),
      order: plan.unfolded.order.map((o) => o.measure),
      tempos: tune.tempos.map((t) => ({ start: ticksAt(timeline, t.pos), bpm: t.bpm })),
    },
    setup: {
      tuning: [...setup.tuning].reverse(),
      capo: setup.capo[0]!,
      instrument: setup.instrument.kind,
      player: setup.player,
    },
    transposed: plan.transposed,
    source: [...plan.melody, ...plan.slid, ...plan.low].sort((a, b) => a.start - b.start).map(sourceNote),
    ...(plan.sung.length > 0 ? { sung: plan.sung.map(sourceNote) } : {}),
    notes: layer.notes.map((n) => ({
      measure: knownIn(timeline.indexOf, n.pos.measure),
      start: ticksAt(timeline, n.pos),
      duration: n.dur.ticks,
      ring: knownIn(rings, n.id),
      string: n.place.string,
      fret: n.place.fret,
      ...(n.place.harmonic ? { harmonic: n.place.harmonic } : {}),
      ...(n.place.artificial ? { artificial: true } : {}),
      midi: pitchAt(setup, n.place) + (n.bend ?? 0),
      role: n.role,
      leftFinger: n.left,
      rightFinger: n.right,
      technique: n.attack,
      ...(n.graces
        ? {
            graces: n.graces.map((g) => ({
              string: g.place.string,
              fret: g.place.fret,
              midi: pitchAt(setup, g.place),
              leftFinger: g.left,
              technique: g.attack,
              ...(g.optional ? { optional: true } : {}),
            })),
          }
        : {}),
      ...(n.bend ? { bend: n.bend } : {}),
      ...(n.vibrato ? { vibrato: true } : {}),
      ...(n.damp ? { damp: true } : {}),
      ...Object.fromEntries(SLIDE_MARKS.flatMap((m) => (n[m] ? [[m, true]] : []))),
      ...(n.letRing ? { letRing: true } : {}),
      ...(n.place.offsetCents ? { offsetCents: n.place.offsetCents } : {}),
      ...(n.accent ? { accent: true } : {}),
      ...(n.palmMute ? { palmMute: true } : {}),
      ...(n.staccato ? { staccato: true } : {}),
      ...(n.fermata ? { fermata: true } : {}),
      ...(n.rolled ? { rolled: true } : {}),
      ...(n.remark ? { remark: n.remark } : {}),
      ...Object.fromEntries(EXPRESSION_PARTS.flatMap((p) => (n[p] ? [[p, n[p]]] : []))),
      ...(n.optional ? { optional: true } : {}),
    })),
    grips: layer.grips.map((g) => ({
      start: ticksAt(timeline, g.pos),
      pressed: [...g.pressed, ...(g.ready ?? [])].map(({ string, fret, finger }) => ({
        string,
        fret,
        finger,
      })),
    })),
    chords: plan.harmony.map((h) => ({
      start: h.start,
      symbol: h.shape ? chordText(h.shape) : h.symbol,
      sounding: h.sounding ? chordText(h.sounding) : h.symbol,
      rootWanted: rootWanted(tune, plan, setup.instrument, h.start),
      ...(origins.has(h.start) ? { origin: knownIn(origins, h.start) } : {}),
    })),
    warnings,
    elapsedMs,
  }
}

const sourceNote = (n: MelodyNote): SourceNote => ({
  start: n.start,
  duration: n.duration,
  midi: midiOf(n.pitch) + (n.moved ?? 0),
  ...(n.moved ? { moved: n.moved } : {}),
})

function styleOf(
  plan: Plan,
  setup: Setup,
  measure: number,
): { style?: Style; level?: Level; picking?: PickingSchool; harmonyAbove?: boolean; sung?: boolean } {
  const region = plan.regions[measure]
  if (region && !isSolo(region.style)) {
    const { style, level, school = USUAL_SCHOOL } = region
    const sung = isAccompaniment(style) ? { sung: true } : {}
    const above = style === 'bass-tune' ? { harmonyAbove: true } : {}
    return { style, level, picking: pickingOf(style, school, setup), ...sung, ...above }
  }
  const slice = plan.slices[plan.firstSlice[measure]!]
  if (slice?.measure !== measure) return {}
  const { style, level, school, rules } = slice
  const above = school.parts === 'both' || (rules.double !== undefined && school.harmony === 'above')
  const picking = pickingOf(style, school, setup)
  return { style, level, picking, ...(above ? { harmonyAbove: true } : {}) }
}

const HAVE_NO_ROOTS: ReadonlySet<Style> = new Set(OTHER_TUNE_STYLES)

/** True where the style plays a bass or voicing at a time and the school wants its root. */
function rootWanted(tune: TuneDoc, plan: Plan, instrument: Setup['instrument'], start: number): boolean {
  const region = plan.regions[measureAt(plan.timeline, start)]
  // There the tune has the bass, or the bar lies where the tune is.
  if (region && HAVE_NO_ROOTS.has(region.style)) return false
  if (region && isAccompaniment(region.style))
    return !strumsWhole(region.style, instrument) && accompanimentRoots(tune, plan, region, start)
  const slice = plan.slices[plan.sliceAt.get(start) ?? -1]
  if (!slice || slice.school.root !== 'always') return false
  const { rules, school } = slice
  // What the teacher says is not found wanting.
  if (plan.bass[slice.bass]?.kind === 'said') return false
  // Without bass strings chords are turned over freely.
  if (rules.chord) return hasBassStrings(instrument)
  return rules.bass !== 'none' && !rules.pedal && school.parts === 'melody'
}

/** An accompaniment has the root of every chord; a strum that of chords which come with the arm, on a beat. */
function accompanimentRoots(
  { measures }: TuneDoc,
  { timeline }: Plan,
  { style, school = USUAL_SCHOOL }: Region,
  start: number,
): boolean {
  if (school.root !== 'always') return false
  const m = measureAt(timeline, start)
  const at = inFullMeasure(measures[m]!, start - timeline.starts[m]!)
  return style !== 'strum' || isCounted(measures[m]!.metre, at)
}

/** The audit's view of such an object. */
export function finishedTabOf(json: TabJson): FinishedTab {
  const { instrument = 'guitar', player, capo } = json.setup
  const setup = setupOf(instrument, [...json.setup.tuning].reverse(), { fret: capo }, player)
  return {
    setup,
    transposed: json.transposed,
    measures: json.tune.measures,
    order: json.tune.order,
    tempos: json.tune.tempos,
    source: json.source,
    notes: json.notes,
    grips: json.grips ?? [],
    chords: json.chords.map((c) => {
      const reading = readChordSymbol(c.sounding)
      const wanted = c.rootWanted ?? true
      return reading.kind === 'chord'
        ? {
            start: c.start,
            symbol: c.sounding,
            bass: bassPitchClass(reading.chord),
            tones: chordPitchClasses(reading.chord),
            rootWanted: wanted,
          }
        : { start: c.start, symbol: c.sounding, rootWanted: wanted }
    }),
  }
}
