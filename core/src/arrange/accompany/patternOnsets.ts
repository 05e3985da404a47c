import { present } from '../../invariant.ts'
import type { Timeline } from '../../document/form/timeline.ts'
import { chordText } from '../../music/harmony/chordSymbol.ts'
import type { PressedPlace } from '../../document/tab.ts'
import { sameContent } from '../../document/content.ts'
import type { RootRule } from '../../document/school.ts'
import type { Measure } from '../../document/tune.ts'
import type { LeftFinger } from '../../instrument/hand.ts'
import type { Place, Setup } from '../../instrument/setup.ts'
import type { HarmonySegment } from '../plan/harmonyLine.ts'
import { segmentAt } from '../plan/harmonyLine.ts'
import { isCounted, missingHead } from '../../music/time/metre.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import type { AccompanyOnset, HeldHand, Sounded } from './onset.ts'
import { measuresOf, stepsOf, stepTicks, type Pattern, type PatternStep } from './pattern.ts'
import type { SegmentShape } from './progressionShapes.ts'
import type { AccompanyRemark } from './remark.ts'
import { armAt } from './strumText.ts'
import { struckStrings } from './struckStrings.ts'

/** Harmony with the shape held for each of its segments, by index. */
export interface HeldHarmony {
  readonly setup: Setup
  readonly harmony: readonly HarmonySegment[]
  readonly shapes: ReadonlyMap<number, SegmentShape>
}

/** A measure to be accompanied, with the pattern laid on it. */
export interface PatternMeasure {
  readonly index: number
  readonly measure: Measure
  readonly pattern: Pattern
  /** Which measure of the pattern this is. */
  readonly turn: number
}

/** The hand of a shape. */
export function handOf({ frets, fingers }: SegmentShape, shape: string): HeldHand {
  return {
    shape,
    pressed: frets.flatMap((fret, i): PressedPlace[] => {
      const finger = fingers[i]
      return fret && finger ? [{ string: i + 1, fret, finger }] : []
    }),
  }
}

/**
 * What a pattern sounds in a measure. The root is struck where a chord begins as the school wants it: always (added where
 * the pattern has none there), as the pattern has it, or never.
 * @param style of the region: strums add whole strokes, other patterns a bass
 */
export function patternOnsets(
  held: HeldHarmony,
  timeline: Timeline,
  { index, measure, pattern, turn }: PatternMeasure,
  root: RootRule,
  strums: boolean,
): { onsets: AccompanyOnset[]; remarks: AccompanyRemark[] } {
  const { harmony } = held
  const from = timeline.starts[index]!
  const length = stepTicks(pattern)
  const whole = stepsOf(pattern.metre, pattern.perBeat)
  const offset = missingHead(measure)
  const steps = new Map<Ticks, PatternStep>()
  const remarks: AccompanyRemark[] = []
  const first = (turn % measuresOf(pattern)) * whole
  for (let k = 0; k < whole; k++) {
    const step = pattern.steps[first + k]
    const at = k * length - offset
    if (!step || at < 0 || at >= measure.length) continue
    steps.set(from + at, step)
    if (strums && pattern.perBeat > 1 && step.sweep && step.sweep.direction !== armAt(k, pattern.perBeat))
      remarks.push({ kind: 'againstArm', measure: index, step: k + 1 })
  }
  if (root === 'always')
    for (const { start, shape } of harmony)
      if (shape && start >= from && start < from + measure.length)
        withRoot(steps, start, strums, isCounted(measure.metre, start - from + offset))
  const onsets: AccompanyOnset[] = []
  for (const [start, written] of [...steps].sort((a, b) => a[0] - b[0])) {
    const onset = stepOnset(held, index, start, written, root, remarks)
    if (onset) onsets.push(onset)
  }
  return { onsets, remarks }
}

/** What a step sounds at a time, with the shape that is held there. */
function stepOnset(
  { setup, harmony, shapes }: HeldHarmony,
  index: number,
  start: Ticks,
  written: PatternStep,
  root: RootRule,
  remarks: AccompanyRemark[],
): AccompanyOnset | undefined {
  const segment = segmentAt(harmony, start)
  const shape = shapes.get(segment)
  const chord = harmony[segment]?.sounding
  if (!shape || !chord) return undefined
  const name = chordText(present(harmony[segment]!.shape))
  const step = root === 'never' ? withoutRoot(written) : written
  const struck = struckStrings(setup, { frets: shape.frets, chord }, step)
  for (const m of struck.moved) remarks.push({ kind: 'mutedString', measure: index, chord: name, ...m })
  if (struck.lacking > 0)
    remarks.push({ kind: 'fewStrings', measure: index, chord: name, lacking: struck.lacking })
  const sounds = [
    ...struck.plucked.map(({ place, bass }): Sounded => ({
      place,
      finger: fingerAt(shape, place),
      role: bass ? 'bass' : 'harmony',
      attack: 'pluck',
      optional: false,
    })),
    ...struck.swept.map(({ place, optional }, i): Sounded => {
      const muted = present(step.sweep).muted
      const lowest = i === 0 && present(step.sweep).over === 'all' && present(step.sweep).direction === 'down'
      return {
        place: muted ? { string: place.string, fret: 0 } : place,
        finger: muted ? 0 : fingerAt(shape, place),
        role: lowest && !muted ? 'bass' : 'harmony',
        attack: muted ? 'muted' : 'brush',
        optional,
      }
    }),
  ]
  if (sounds.length === 0) return undefined
  return {
    start,
    measure: index,
    segment,
    sounds,
    ...(step.sweep ? { stroke: step.sweep.direction } : {}),
    accent: step.accent,
    palm: step.palm,
    hand: handOf(shape, name),
  }
}

/** The last chord of a tune: its root with the chord, plucked together or brushed once, and left to ring. */
export function endingOnset(
  held: HeldHarmony,
  index: number,
  start: Ticks,
  plucked: boolean,
  root: RootRule,
): AccompanyOnset | undefined {
  const step: PatternStep = plucked
    ? { strings: [{ of: 'bass' }, ...[1, 2, 3].map((steps) => ({ of: 'above', steps }) as const)], ...QUIET }
    : { strings: [], sweep: WHOLE_STROKE, ...QUIET }
  return stepOnset(held, index, start, step, root, [])
}

const fingerAt = (shape: SegmentShape, { string, fret }: Place): LeftFinger =>
  shape.frets[string - 1] === fret ? shape.fingers[string - 1]! : 0

/** The step at which a chord begins, with its root in it. Strums get a whole stroke, and only on a beat. */
function withRoot(steps: Map<Ticks, PatternStep>, start: Ticks, strums: boolean, onBeat: boolean): void {
  const step = steps.get(start)
  if (strums) {
    const full = step?.sweep?.direction === 'down' && step.sweep.over === 'all' && !step.sweep.muted
    const plucked = step?.strings.some((s) => s.of === 'bass')
    if (full || plucked || !onBeat) return
    steps.set(start, {
      strings: [],
      sweep: WHOLE_STROKE,
      accent: step?.accent ?? false,
      palm: step?.palm ?? false,
    })
    return
  }
  if (step?.strings.some((s) => s.of === 'bass')) return
  const others = step?.strings.filter((s) => s.of !== 'other') ?? []
  steps.set(start, { ...(step ?? QUIET), strings: [{ of: 'bass' }, ...others] })
}

const WHOLE_STROKE = { direction: 'down', over: 'all', muted: false } as const
const QUIET = { accent: false, palm: false } as const

/** The same step without the bass string: the other bass, or the string above, takes its turn. */
function withoutRoot(step: PatternStep): PatternStep {
  const strings = step.strings.map((s) => (s.of === 'bass' ? ({ of: 'above', steps: 1 } as const) : s))
  const unique = strings.filter((s, i) => strings.findIndex((o) => sameContent(o, s)) === i)
  const { sweep } = step
  return { ...step, strings: unique, ...(sweep ? { sweep: { ...sweep, over: 'trebles' } } : {}) }
}
