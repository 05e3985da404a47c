import { unfold, type Unfolded } from '../form/unfold.ts'
import { melodyOf, measureAt, timelineOf, type MelodyNote, type Timeline } from '../form/timeline.ts'
import type { Level, Region, Style } from '../model/arrangement.ts'
import type { PinnedShape, TuneDoc } from '../model/tune.ts'
import type { Setup } from '../neck/setup.ts'
import { midiOf, type Midi } from '../pitch/pitch.ts'
import { QUARTER, secondsOf, type Ticks } from '../time/ticks.ts'
import { USUAL_TEMPO } from '../time/tempo.ts'
import { bassLine, type BassWish } from './bassLine.ts'
import { harmonyLine, type HarmonySegment } from './harmonyLine.ts'
import { chooseRegister, type Register } from './register.ts'

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
  /** Index of the sounding bass wish; −1 where there is none. */
  readonly bass: number
  readonly bassOnset: boolean
  /** Index of the harmony segment; −1 before the first chord. */
  readonly segment: number
  readonly level: Level
  readonly style: Style
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
  readonly harmony: readonly HarmonySegment[]
  readonly bass: readonly BassWish[]
  /** Shapes that the teacher wants, by the chord's shape name. */
  readonly pins: readonly PinnedShape[]
  readonly slices: readonly Slice[]
  /** First slice of each measure; equal to the next measure's where a measure has none. */
  readonly firstSlice: readonly number[]
  readonly junctions: readonly Junction[]
  /** True for a measure that is played right after the one before it on the page. */
  readonly follows: readonly boolean[]
}

export type Planned =
  | { readonly ok: true; readonly plan: Plan }
  | { readonly ok: false; readonly register: Register & { ok: false } }

/**
 * Lays out the voices of an arrangement: register, bass, slices; joins of the played order.
 */
export function makePlan(tune: TuneDoc, setup: Setup, regions: readonly Region[]): Planned {
  const timeline = timelineOf(tune.measures)
  const unfolded = unfold(tune.measures)
  const melody = melodyOf(tune, timeline)
  const register = chooseRegister(melody, setup)
  if (!register.ok) return { ok: false, register }
  const { transposed } = register
  const harmony = harmonyLine(tune, timeline, setup.capo[0]!, transposed)
  const junctions = junctionsOf(unfolded)
  // What follows a measure differs between passes at both ends of a join.
  const parted = new Set(junctions.flatMap((j) => [j.to, j.from + 1]))
  const ruleOf = regionIndex(tune, timeline, regions)
  const bass = bassLine(tune.measures, timeline, harmony, ruleOf, parted)
  const slices = cut(tune, timeline, melody, bass, harmony, ruleOf)
  const firstSlice = tune.measures.map((_, i) => {
    const at = slices.findIndex((s) => s.measure >= i)
    return at < 0 ? slices.length : at
  })
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
      melodyMidi: melody.map((n) => midiOf(n.pitch) + transposed),
      harmony,
      bass,
      pins: tune.pins ?? [],
      slices,
      firstSlice,
      junctions,
      follows: tune.measures.map((_, i) => i === 0 || consecutive.has(i)),
    },
  }
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

function regionIndex(
  tune: TuneDoc,
  timeline: Timeline,
  regions: readonly Region[],
): (m: number) => Region | undefined {
  const byMeasure: (Region | undefined)[] = tune.measures.map(() => undefined)
  for (const region of regions) {
    const from = timeline.indexOf.get(region.from) ?? 0
    const to = timeline.indexOf.get(region.to) ?? tune.measures.length - 1
    for (let i = from; i <= to; i++) byMeasure[i] = region
  }
  return (m) => byMeasure[m]
}

function cut(
  tune: TuneDoc,
  timeline: Timeline,
  melody: readonly MelodyNote[],
  bass: readonly BassWish[],
  harmony: readonly HarmonySegment[],
  ruleOf: (m: number) => Region | undefined,
): Slice[] {
  const times = [...new Set([...melody.map((n) => n.start), ...bass.map((b) => b.start)])].sort(
    (a, b) => a - b,
  )
  const slices: Slice[] = []
  let m = -1
  let b = -1
  let h = -1
  let tempo = 0
  const tempos = tune.tempos
    .map((t) => ({ at: timeline.starts[timeline.indexOf.get(t.pos.measure)!]! + t.pos.tick, bpm: t.bpm }))
    .sort((x, y) => x.at - y.at)
  times.forEach((start, i) => {
    const end = times[i + 1] ?? timeline.length
    while (m + 1 < melody.length && melody[m + 1]!.start <= start) m++
    while (b + 1 < bass.length && bass[b + 1]!.start <= start) b++
    while (h + 1 < harmony.length && harmony[h + 1]!.start <= start) h++
    while ((tempos[tempo + 1]?.at ?? Infinity) <= start) tempo++
    const measure = measureAt(timeline, start)
    const rules = ruleOf(measure)
    const note = melody[m]
    const wish = bass[b]
    const since = start - (times[i - 1] ?? start - (end - start))
    slices.push({
      start,
      end,
      measure,
      seconds: secondsOf(since, tempos[tempo]?.bpm ?? USUAL_TEMPO),
      beats: (end - start) / QUARTER,
      melody: note && note.start + note.duration > start ? m : -1,
      melodyOnset: note?.start === start,
      bass: wish && wish.until > start ? b : -1,
      bassOnset: wish?.start === start,
      segment: (harmony[h]?.end ?? 0) > start ? h : -1,
      level: rules?.level ?? 1,
      style: rules?.style ?? 'melody-bass',
    })
  })
  return slices
}
