import { knownIn, present } from '../../invariant.ts'
import { bpmAt, tempoMap } from '../../document/form/tempoMap.ts'
import { ticksAt, type Timeline } from '../../document/form/timeline.ts'
import { unfold } from '../../document/form/unfold.ts'
import type { Layer } from '../../document/arrangement.ts'
import type { Grip, TabNote } from '../../document/tab.ts'
import type { TuneDoc } from '../../document/tune.ts'
import type { Setup } from '../../instrument/setup.ts'
import { secondsOf, type Ticks } from '../../music/time/ticks.ts'
import { EFFORT } from './effortWeights.ts'
import { pressedOf } from '../grip/pressed.ts'
import { barredStrings, gripChange, strainMm } from './handMoves.ts'
import { pluckLoad, pluckSeconds } from './pluckMoves.ts'

export const EFFORT_PARTS = [
  'stretch',
  'shift',
  'barre',
  'changes',
  'picking',
  'independence',
  'haste',
] as const

/** How hard a measure is, in named parts. Each part's `value` is in `unit`; `points` are added up to the effort. */
export interface EffortPart {
  readonly part: (typeof EFFORT_PARTS)[number]
  readonly points: number
  readonly value: number
  readonly unit: 'mm' | 'mm/s' | 'string·s' | 'fingers/s' | 'notes/s' | 'onsets/s'
}

/** What gives out first when a measure is played faster and faster. */
export type CeilingReason = 'changes' | 'shift' | 'barre' | 'stretch' | 'picking'

export interface TempoCeiling {
  /** Fastest tempo, in quarter notes a minute, at which this hand should manage the measure. */
  readonly bpm: number
  readonly reason: CeilingReason
  /** Where it gives out, as ticks from the written start. */
  readonly at: Ticks
}

export interface MeasureEffort {
  readonly measure: number
  readonly effort: number
  /** Largest first; parts without points are left out. */
  readonly parts: readonly EffortPart[]
  /** Absent where nothing in the measure sets a limit. */
  readonly ceiling?: TempoCeiling
}

/**
 * Effort of each measure of a finished tab at a tempo, for this setup's hand; and the measure's tempo ceiling. Rates
 * rise with the tempo, so the effort does. Measures are entered as they are played: a repeat counts with what comes
 * before it each time.
 * @param tempoShare share of the tune's own tempo
 */
export function effortOf(
  tune: TuneDoc,
  setup: Setup,
  layer: Pick<Layer, 'notes' | 'grips'>,
  timeline: Timeline,
  tempoShare = 1,
): MeasureEffort[] {
  const moments = momentsByMeasure(tune, layer, timeline)
  const tempos = temposOf(tune, timeline)
  const ceilings = ceilingsOf(tune, setup, moments, timeline, tempos)
  return effortAt(tune, setup, moments, tempos, tempoShare).map((effort, m) => {
    const ceiling = ceilings[m]
    return ceiling ? { ...effort, ceiling } : effort
  })
}

/** The same at the tune's own tempo, without the ceilings, which take most of the time. */
export function effortAlone(
  tune: TuneDoc,
  setup: Setup,
  layer: Pick<Layer, 'notes' | 'grips'>,
  timeline: Timeline,
): MeasureEffort[] {
  return effortAt(tune, setup, momentsByMeasure(tune, layer, timeline), temposOf(tune, timeline), 1)
}

function effortAt(
  tune: TuneDoc,
  setup: Setup,
  moments: readonly (readonly Moment[])[],
  tempos: readonly number[],
  tempoShare: number,
): MeasureEffort[] {
  return tune.measures.map((measure, m) => {
    const bpm = tempos[m]! * tempoShare
    const parts = partsOf(setup, moments[m]!, moments[m - 1]?.at(-1), measure.length, bpm)
    const kept = parts.filter((p) => p.points > 0.05).sort((a, b) => b.points - a.points)
    return {
      measure: m,
      effort: Math.round(kept.reduce((sum, p) => sum + p.points, 0) * 10) / 10,
      parts: kept,
    }
  })
}

/** A tune's effort in one number, and the tempo at which its first measure gives out. */
export interface TuneEffort {
  readonly mean: number
  readonly hardest: MeasureEffort | undefined
  /** The measure with the lowest ceiling. */
  readonly slowest: MeasureEffort | undefined
}

export function tuneEffort(measures: readonly MeasureEffort[]): TuneEffort {
  const most = <T>(list: readonly T[], of: (item: T) => number) =>
    list.reduce<T | undefined>((best, x) => (best === undefined || of(x) > of(best) ? x : best), undefined)
  const sum = measures.reduce((total, m) => total + m.effort, 0)
  return {
    mean: measures.length > 0 ? Math.round((sum / measures.length) * 10) / 10 : 0,
    hardest: most(measures, (m) => m.effort),
    slowest: most(
      measures.filter((m) => m.ceiling),
      (m) => -present(m.ceiling).bpm,
    ),
  }
}

/** A grip with the notes that are struck under it. */
interface Moment {
  readonly start: Ticks
  readonly end: Ticks
  readonly grip: Grip
  readonly notes: readonly TabNote[]
}

function momentsByMeasure(
  tune: TuneDoc,
  layer: Pick<Layer, 'notes' | 'grips'>,
  timeline: Timeline,
): Moment[][] {
  const struck = new Map<Ticks, TabNote[]>()
  for (const note of layer.notes) {
    const start = ticksAt(timeline, note.pos)
    const own = struck.get(start)
    if (own) own.push(note)
    else struck.set(start, [note])
  }
  const moments: Moment[][] = tune.measures.map(() => [])
  for (const grip of layer.grips) {
    const start = ticksAt(timeline, grip.pos)
    moments[knownIn(timeline.indexOf, grip.pos.measure)]!.push({
      start,
      end: ticksAt(timeline, grip.until),
      grip,
      notes: struck.get(start) ?? [],
    })
  }
  for (const own of moments) own.sort((a, b) => a.start - b.start)
  return moments
}

/** Tempo of each measure in quarter notes a minute. */
function temposOf(tune: TuneDoc, timeline: Timeline): number[] {
  const tempos = tempoMap(tune, timeline)
  return timeline.starts.map((start) => bpmAt(tempos, start))
}

function partsOf(
  setup: Setup,
  moments: readonly Moment[],
  entry: Moment | undefined,
  length: Ticks,
  bpm: number,
): EffortPart[] {
  const seconds = secondsOf(length, bpm)
  const sum = { strain: 0, shift: 0, barre: 0, landed: 0, load: 0, apart: 0, onsets: 0 }
  let before = entry
  for (const moment of moments) {
    const pressed = pressedOf(moment.grip.pressed)
    sum.strain = Math.max(sum.strain, strainMm(setup, pressed))
    sum.barre += barredStrings(pressed) * secondsOf(moment.end - moment.start, bpm)
    if (before) {
      const move = gripChange(setup, before.grip, moment.grip)
      sum.shift += move.shiftMm
      sum.landed += move.landed
    }
    if (moment.notes.length > 0) {
      sum.onsets++
      sum.load += pluckLoad(moment.notes)
      if (isApart(moment, moments)) sum.apart++
    }
    before = moment
  }
  const a = (x: number) => x / seconds
  const fast = Math.max(0, a(sum.onsets) - EFFORT.calmPerS)
  return [
    { part: 'stretch', value: sum.strain, unit: 'mm', points: sum.strain / EFFORT.stretchMm },
    { part: 'shift', value: a(sum.shift), unit: 'mm/s', points: a(sum.shift) / EFFORT.shiftMmPerS },
    // Barres tire with the strings that lie under them all along; a faster tempo only shortens the measure.
    { part: 'barre', value: sum.barre, unit: 'string·s', points: a(sum.barre) / EFFORT.barreStrings },
    {
      part: 'changes',
      value: a(sum.landed),
      unit: 'fingers/s',
      points: a(sum.landed) / EFFORT.changesPerS,
    },
    { part: 'picking', value: a(sum.load), unit: 'notes/s', points: a(sum.load) / EFFORT.pickingPerS },
    {
      part: 'independence',
      value: a(sum.apart),
      unit: 'onsets/s',
      points: a(sum.apart) / EFFORT.independentPerS,
    },
    { part: 'haste', value: a(sum.onsets), unit: 'onsets/s', points: fast / EFFORT.hastePerS },
  ]
}

/** True where a voice moves while another of the measure is held: melody off the bass, bass under a held melody. */
function isApart({ notes, start }: Moment, moments: readonly Moment[]): boolean {
  const voices = new Set(notes.map((n) => n.role))
  return moments.some((m) =>
    m.notes.some(
      (n) =>
        !voices.has(n.role) &&
        (n.role === 'bass' || n.role === 'melody') &&
        m.start < start &&
        m.start + n.dur.ticks > start,
    ),
  )
}

function ceilingsOf(
  tune: TuneDoc,
  setup: Setup,
  moments: readonly (readonly Moment[])[],
  timeline: Timeline,
  tempos: readonly number[],
): (TempoCeiling | undefined)[] {
  const ceilings: (TempoCeiling | undefined)[] = tune.measures.map(() => undefined)
  const seen = new Set<string>()
  const order = unfold(tune.measures).order
  order.forEach(({ measure }, i) => {
    const last = order[i - 1]?.measure
    const key = `${last}>${measure}`
    if (seen.has(key)) return
    seen.add(key)
    const own = moments[measure]!
    const entry = last === undefined ? undefined : moments[last]!.at(-1)
    own.forEach((moment, k) => {
      const before = own[k - 1] ?? entry
      if (!before) return
      const ticks =
        k > 0
          ? moment.start - before.start
          : before.end - before.start + gapAtStart(moment, timeline, measure)
      const found = ceilingOf(setup, before, moment, secondsOf(ticks, tempos[measure]!))
      if (!found) return
      const bpm = Math.floor(tempos[measure]! * found.share)
      if (bpm < (ceilings[measure]?.bpm ?? Infinity))
        ceilings[measure] = { bpm, reason: found.reason, at: moment.start }
    })
  })
  return ceilings
}

const gapAtStart = (moment: Moment, timeline: Timeline, measure: number): Ticks =>
  moment.start - timeline.starts[measure]!

/** How many times faster the step between two moments could go, and what gives out then. */
function ceilingOf(
  setup: Setup,
  before: Moment,
  moment: Moment,
  seconds: number,
): { share: number; reason: CeilingReason } | undefined {
  const move = gripChange(setup, before.grip, moment.grip)
  const pluck =
    before.notes.length > 0 && moment.notes.length > 0 ? pluckSeconds(before.notes, moment.notes) : 0
  const needed = Math.max(move.seconds, pluck)
  if (needed <= 0) return undefined
  return { share: seconds / needed, reason: pluck > move.seconds ? 'picking' : move.main }
}
