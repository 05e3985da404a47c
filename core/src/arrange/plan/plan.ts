import { bpmAt, tempoMap } from '../../document/form/tempoMap.ts'
import { unfold, type Unfolded } from '../../document/form/unfold.ts'
import {
  melodyOf,
  measureAt,
  timelineOf,
  type MelodyNote,
  type Timeline,
} from '../../document/form/timeline.ts'
import type { Region } from '../../document/arrangement.ts'
import { type Ornament, isSolo, type Level, type SoloStyle, type Style } from '../../document/style.ts'
import { ornamentOf } from '../../document/regions.ts'
import { USUAL_SCHOOL, type School } from '../../document/school.ts'
import { sourceGraces } from '../ornament/sourceOrnaments.ts'
import type { PinnedShape, TuneDoc } from '../../document/tune.ts'
import { rangeOf, type Setup } from '../../instrument/setup.ts'
import { transposeKey, type Key } from '../../music/pitch/key.ts'
import { midiOf, type Midi } from '../../music/pitch/pitch.ts'
import { beatStarts, inFullMeasure } from '../../music/time/metre.ts'
import { QUARTER, secondsOf, type Ticks } from '../../music/time/ticks.ts'
import { finish, mapInTurns, type Turns } from '../../turns.ts'
import { alikeBass, bassContents } from './alikeBass.ts'
import { bassLine, type PlannedBass } from './bassLine.ts'
import { endingsOf, type Ending } from './endings.ts'
import { harmonyLine, type HarmonySegment } from './harmonyLine.ts'
import { fullerLevel } from './fullerLevel.ts'
import type { PlannedInner } from './innerLine.ts'
import { passingBass } from './passingBass.ts'
import { partLine } from './partLine.ts'
import { melodyKind, playedMelody, regionIndex, USUAL_STYLE } from './playedMelody.ts'
import { codeOfTone } from '../../chords/lowerVoices.ts'
import { ledTone } from './ledTone.ts'
import { chooseRegister, foldOntoInstrument, type Register } from './register.ts'
import { styleRules, type StyleRules } from './styleRules.ts'
import { withTasteShapes } from './tasteShapes.ts'

/** A moment at which something starts. Obligations hold until the next slice. */
export interface Slice {
  readonly start: Ticks
  readonly end: Ticks
  readonly measure: number
  /** Seconds from the slice before it in played order at the tune's tempo. */
  readonly seconds: number
  readonly beats: number
  /** Index of the sounding melody note; −1 in a rest. */
  readonly melody: number
  readonly melodyOnset: boolean
  /** Index of the planned bass note that sounds; −1 where there is none. */
  readonly bass: number
  readonly bassOnset: boolean
  /** Index of the further voices that sound; −1 where there are none. */
  readonly inner: number
  readonly innerOnset: boolean
  /** Index of the harmony segment; −1 before the first chord. */
  readonly segment: number
  readonly level: Level
  readonly style: SoloStyle
  readonly school: School
  readonly rules: StyleRules
  /** False where an easier version lays no finger across strings. */
  readonly barres: boolean
  /** False where it keeps from the end of the hand's reach. */
  readonly stretches: boolean
}

/** An extra way in which the played order joins two measures that are not neighbours on the page. */
export interface Junction {
  readonly from: number
  readonly to: number
}

/** Everything that the solver must do, and nothing about how. */
export interface Plan {
  readonly timeline: Timeline
  readonly unfolded: Unfolded
  readonly transposed: number
  readonly melody: readonly MelodyNote[]
  readonly melodyMidi: readonly Midi[]
  /** How far the ornament of each melody note goes below and above it, in semitones; undefined where it has none. */
  readonly ornamentRoom: readonly (OrnamentRoom | undefined)[]
  /** True for a melody note on a beat, by its index. */
  readonly onBeat: readonly boolean[]
  /** The melody of measures that are accompanied: somebody sings it. */
  readonly sung: readonly MelodyNote[]
  /** The melody of measures that are played with a bottleneck. */
  readonly slid: readonly MelodyNote[]
  /** The melody of measures that have it in the bass. */
  readonly low: readonly MelodyNote[]
  readonly harmony: readonly HarmonySegment[]
  /**
   * The tone that goes down by a step into a segment of the harmony from the one before it: where it lies on the strings (a code of
   * lower voices), and how far it goes. Undefined where there is none.
   */
  readonly ledInto: readonly ({ readonly ledTone: number; readonly ledDown: number } | undefined)[]
  readonly bass: readonly PlannedBass[]
  readonly inner: readonly PlannedInner[]
  /** The region of each measure; undefined outside every region. */
  readonly regions: readonly (Region | undefined)[]
  /** Shapes that the teacher wants, by the chord's shape name. */
  readonly pins: readonly PinnedShape[]
  readonly slices: readonly Slice[]
  /** Slice that starts at a time. */
  readonly sliceAt: ReadonlyMap<Ticks, number>
  /** The sounding key of each measure. */
  readonly keys: readonly Key[]
  /** Where the music comes to rest. */
  readonly endings: readonly Ending[]
  /** Seconds between two written times at the tune's tempos. */
  readonly secondsBetween: (from: Ticks, to: Ticks) => number
  /** First slice of each measure; equal to the next measure's where a measure has none. */
  readonly firstSlice: readonly number[]
  readonly junctions: readonly Junction[]
  /** True for a measure that is played right after the one before it on the page. */
  readonly follows: readonly boolean[]
}

export type Planned =
  | { readonly ok: true; readonly plan: Plan }
  | { readonly ok: false; readonly register: Register & { ok: false } }

/** Lays out the voices of an arrangement, all at once. */
export const makePlan = (tune: TuneDoc, setup: Setup, regions: readonly Region[]): Planned =>
  finish(planning(tune, setup, regions))

/**
 * Lays out the voices of an arrangement: register, bass, slices; joins of the played order.
 */
export function* planning(tune: TuneDoc, setup: Setup, regions: readonly Region[]): Turns<Planned> {
  const timeline = timelineOf(tune.measures)
  const unfolded = unfold(tune.measures)
  const ruleOf = regionIndex(tune, timeline, regions)
  const kindOf = (region: Region | undefined) => melodyKind(region?.style ?? USUAL_STYLE)
  const kind = (m: number) => kindOf(ruleOf(m))
  const { notes: played, solo } = playedMelody(tune, timeline, regions)
  // A tab that is given lies where it lies: its tune goes to no other octave.
  const isGiven = regions.some((r) => r.given)
  const register = played.length > 0 && !isGiven ? chooseRegister(played, setup, solo) : unmoved(setup)
  const folded = register.ok ? undefined : foldOntoInstrument(played, setup)
  if (!register.ok && !folded) return { ok: false, register }
  const transposed = folded?.transposed ?? (register.ok ? register.transposed : 0)
  const placed = folded?.melody ?? played
  const melody = placed
    .filter((n) => kind(n.measure) === 'fingered')
    .map((n) => {
      const octave = ruleOf(n.measure)?.octave
      return octave ? inOctave(n, octave, transposed, setup) : n
    })
  const low = regions
    .filter((r) => kindOf(r) === 'low')
    .flatMap((r) =>
      inTheBass(
        placed.filter((n) => ruleOf(n.measure) === r),
        r,
        transposed,
        setup,
      ),
    )
    .sort((a, b) => a.start - b.start)
  yield
  const harmony = harmonyLine(tune, timeline, setup.capo[0]!, transposed)
  yield
  const junctions = junctionsOf(unfolded)
  // What follows a measure differs between passes at both ends of a join.
  const parted = new Set(junctions.flatMap((j) => [j.to, j.from + 1]))
  // Nothing is held from a part that plays the melody into one that accompanies it.
  for (let m = 1; m < tune.measures.length; m++) if (kind(m) !== kind(m - 1)) parted.add(m)
  const known = new Map<Region, Map<Level, ReturnType<typeof withLower>>>()
  /** The rules of a measure, or those of so many levels below its own. */
  const rulesAt = (m: number, down = 0) => {
    const region = ruleOf(m)
    if (!region || kind(m) !== 'fingered') return undefined
    const level = Math.max(1, region.level - down) as Level
    const byLevel = known.get(region) ?? new Map<Level, ReturnType<typeof withLower>>()
    const rules = byLevel.get(level) ?? withLower({ ...region, level }, setup)
    known.set(region, byLevel.set(level, rules))
    return { ...rules, ...schoolOf(region) }
  }
  const melodyMidi = melody.map((n) => midiOf(n.pitch) + transposed + (n.moved ?? 0))
  const keys = tune.measures.map((m) => transposeKey(m.key, transposed))
  const endings = endingsOf(tune, timeline, melody, harmony, keys)
  const bassOf = (down: number) =>
    bassLine(
      tune.measures,
      timeline,
      harmony,
      (m) => {
        const at = rulesAt(m, down)
        return at && at.parts === 'melody' ? at : undefined
      },
      parted,
      endings,
    )
  const line = bassOf(0)
  yield
  const alike = (m: number) => rulesAt(m)?.repeats === 'alike'
  const contents = yield* bassContents(line, timeline, melody, harmony, parted)
  const own = yield* alikeBass(line, timeline, contents, alike)
  yield
  const seconds = clock(tune, timeline)
  const walked = passingBass(
    own,
    { timeline, harmony, keys, secondsBetween: seconds, joins: parted, endings },
    contents,
    (m) => rulesAt(m)?.passes ?? false,
    (m) => {
      const at = rulesAt(m)
      return at !== undefined && at.passes && at.root === 'sometimes'
    },
  )
  yield
  const twoParts = (m: number) => rulesAt(m)?.parts === 'both'
  const bass = [...walked, ...partLine(tune, timeline, transposed, twoParts)].sort(
    (a, b) => a.start - b.start,
  )
  yield
  const inner = yield* fullerLevel({
    lines: {
      measures: tune.measures,
      timeline,
      melody,
      melodyMidi,
      harmony,
      keys,
      secondsBetween: seconds,
      joins: parted,
      endings,
    },
    bass,
    bassBelow: bassOf,
    rulesAt: (m, down) => {
      const at = rulesAt(m, down)
      if (!at || at.parts === 'both') return undefined
      return { ...at, side: at.harmony, varied: at.repeats === 'varied' }
    },
    // The first level has none below, and an easier version is poor on purpose.
    sectionOf: (m, down) => {
      const region = ruleOf(m)
      return region && region.level - down > 1 && !region.without?.length && !region.given
        ? region
        : undefined
    },
  })
  yield
  const slices = yield* cut(timeline, { melody, bass, inner, harmony }, ruleOf, rulesAt, seconds)
  const firstSlice = firstSlices(tune.measures.length, slices)
  const consecutive = new Set<number>()
  unfolded.order.forEach((o, i) => {
    if (i > 0 && unfolded.order[i - 1]!.measure === o.measure - 1) consecutive.add(o.measure)
  })
  return {
    ok: true,
    plan: {
      timeline,
      unfolded,
      transposed,
      melody,
      melodyMidi,
      ornamentRoom: ornamentRooms(tune, melody, (m) => densityOf(ruleOf(m))),
      onBeat: melody.map(({ measure, start }) => {
        const own = tune.measures[measure]!
        return beatStarts(own.metre).includes(inFullMeasure(own, start - timeline.starts[measure]!))
      }),
      sung: melodyOf(tune, timeline).filter((n) => kind(n.measure) === 'sung'),
      slid: placed.filter((n) => kind(n.measure) === 'slid'),
      low,
      ledInto: harmony.map((h, i) => ledOnto(setup, harmony[i - 1], h)),
      harmony,
      bass,
      inner,
      regions: tune.measures.map((_, m) => ruleOf(m)),
      pins: withTasteShapes(tune.pins ?? [], regions, setup),
      slices,
      sliceAt: new Map(slices.map((s, i) => [s.start, i])),
      keys,
      endings,
      secondsBetween: seconds,
      firstSlice,
      junctions,
      follows: tune.measures.map((_, i) => i === 0 || consecutive.has(i)),
    },
  }
}

/** A note in another octave, as a section wants it; where the instrument does not have it there it stays. */
function inOctave(note: MelodyNote, octave: number, transposed: number, setup: Setup): MelodyNote {
  const { lowest, highest } = rangeOf(setup)
  const moved = (note.moved ?? 0) + 12 * octave
  const midi = midiOf(note.pitch) + transposed + moved
  return midi >= lowest && midi <= highest ? { ...note, moved } : note
}

/** The melody of a section in the octave in which it lies best on the low strings, whatever the octave of the others. */
function inTheBass(
  notes: readonly MelodyNote[],
  region: Region,
  transposed: number,
  setup: Setup,
): readonly MelodyNote[] {
  if (notes.length === 0 || region.given) return notes
  const register = chooseRegister(notes, setup, [region])
  const down = register.ok ? register.transposed - transposed : 0
  const moved = down === 0 ? notes : notes.map((n) => ({ ...n, moved: (n.moved ?? 0) + down }))
  const { octave } = region
  return octave ? moved.map((n) => inOctave(n, octave, transposed, setup)) : moved
}

/** The tone that goes down from one segment into the next, as `Plan.ledInto` has it. */
function ledOnto(
  setup: Setup,
  from: HarmonySegment | undefined,
  to: HarmonySegment,
): Plan['ledInto'][number] {
  const led = from?.sounding && to.sounding && from.end === to.start && ledTone(from.sounding, to.sounding)
  return led ? { ledTone: codeOfTone(setup, led.tone), ledDown: led.down } : undefined
}

/** Outside every section none but the source's own. */
const densityOf = (region: Region | undefined): Ornament => (region ? ornamentOf(region) : 1)

/** How far an ornament goes below (≤ 0) and above its note, in semitones. */
export interface OrnamentRoom {
  readonly low: number
  readonly high: number
}

function ornamentRooms(
  tune: TuneDoc,
  melody: readonly MelodyNote[],
  densityOf: (measure: number) => Ornament,
): (OrnamentRoom | undefined)[] {
  const events = new Map(tune.events.map((e) => [e.id, e]))
  return melody.map((note) => {
    const event = events.get(note.sourceId)
    if (!event || densityOf(note.measure) === 0) return undefined
    const pitches = sourceGraces(event, tune.measures[note.measure]!.key, 0)
    if (pitches.length === 0) return undefined
    const away = pitches.map((p) => p - midiOf(note.pitch))
    return { low: Math.min(0, ...away), high: Math.max(0, ...away) }
  })
}

function junctionsOf(unfolded: Unfolded): Junction[] {
  const seen = new Map<string, Junction>()
  unfolded.order.forEach((o, i) => {
    const before = unfolded.order[i - 1]
    if (before && before.measure !== o.measure - 1) {
      seen.set(`${before.measure}>${o.measure}`, { from: before.measure, to: o.measure })
    }
  })
  return [...seen.values()]
}

/** First slice of each measure; the next measure's where a measure has none. */
function firstSlices(measures: number, slices: readonly Slice[]): number[] {
  const first: number[] = []
  let at = 0
  for (let m = 0; m < measures; m++) {
    while (at < slices.length && slices[at]!.measure < m) at++
    first.push(at)
  }
  return first
}

/** The rules of a region, and those of the level below it. */
function withLower(
  { style, level, without }: Region,
  { instrument }: Setup,
): StyleRules & { readonly lower: StyleRules } {
  const solo = soloStyle(style)
  const lower = level > 1 ? styleRules(solo, (level - 1) as Level, instrument, without) : NO_RULES
  return { ...styleRules(solo, level, instrument, without), lower }
}

export const schoolOf = (region: Region | undefined): School => region?.school ?? USUAL_SCHOOL

interface Voices {
  readonly melody: readonly MelodyNote[]
  readonly bass: readonly PlannedBass[]
  readonly inner: readonly PlannedInner[]
  readonly harmony: readonly HarmonySegment[]
}

/** Seconds between two written times, by the tempo marks. */
function clock(tune: TuneDoc, timeline: Timeline): (from: Ticks, to: Ticks) => number {
  const tempos = tempoMap(tune, timeline)
  return (from, to) => secondsOf(to - from, bpmAt(tempos, to))
}

function* cut(
  timeline: Timeline,
  { melody, bass, inner, harmony }: Voices,
  ruleOf: (m: number) => Region | undefined,
  rulesAt: (m: number) => StyleRules | undefined,
  secondsBetween: (from: Ticks, to: Ticks) => number,
): Turns<Slice[]> {
  const times = [...new Set([...melody, ...bass, ...inner].map((n) => n.start))].sort((a, b) => a - b)
  yield
  let m = -1
  let b = -1
  let v = -1
  let h = -1
  return yield* mapInTurns(times, (start, i): Slice => {
    const end = times[i + 1] ?? timeline.length
    while (m + 1 < melody.length && melody[m + 1]!.start <= start) m++
    while (b + 1 < bass.length && bass[b + 1]!.start <= start) b++
    while (v + 1 < inner.length && inner[v + 1]!.start <= start) v++
    while (h + 1 < harmony.length && harmony[h + 1]!.start <= start) h++
    const measure = measureAt(timeline, start)
    const region = ruleOf(measure)
    const note = melody[m]
    const bassNote = bass[b]
    const voices = inner[v]
    // A fill is let go; second voices and voicings are held.
    const held = voices && (voices.start === start || (voices.kind !== 'fill' && voices.until > start))
    return {
      start,
      end,
      measure,
      seconds: secondsBetween(times[i - 1] ?? start - (end - start), start),
      beats: (end - start) / QUARTER,
      melody: note && note.start + note.duration > start ? m : -1,
      melodyOnset: note?.start === start,
      bass: bassNote && bassNote.until > start ? b : -1,
      bassOnset: bassNote?.start === start,
      inner: held ? v : -1,
      innerOnset: voices?.start === start,
      segment: (harmony[h]?.end ?? 0) > start ? h : -1,
      level: region?.level ?? 1,
      style: soloStyle(region?.style),
      school: schoolOf(region),
      rules: rulesAt(measure) ?? NO_RULES,
      barres: !region?.without?.includes('barre'),
      stretches: !region?.without?.includes('stretch'),
    }
  })
}

/** As the setup says, and not to another octave for comfort. */
const unmoved = ({ shift = 0, octave = 0 }: Setup) => ({ ok: true, transposed: shift + 12 * octave }) as const

/** Slices exist only where the melody is played; a measure outside every region stands as the plainest style. */
const soloStyle = (style: Style = USUAL_STYLE): SoloStyle => (isSolo(style) ? style : USUAL_STYLE)

const NO_RULES = styleRules('flatpicked-lead', 1, { strings: 6 })
