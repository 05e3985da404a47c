import { present } from '../../invariant.ts'
import type { Timeline } from '../../document/form/timeline.ts'
import { measureAt } from '../../document/form/timeline.ts'
import type { LeftFinger } from '../../instrument/hand.ts'
import { saidStrings, type BassOrder } from '../../document/bassOrder.ts'
import { chordText } from '../../music/harmony/chordSymbol.ts'
import type { Measure } from '../../document/tune.ts'
import type { Key } from '../../music/pitch/key.ts'
import { chordChange } from '../../chords/chordChange.ts'
import { mod12 } from '../../music/pitch/pitch.ts'
import { beatLength, isCompound } from '../../music/time/metre.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import { bassPitch, bassRun } from './bassRun.ts'
import { underPattern } from './underPattern.ts'
import { lineNote } from './lineNote.ts'
import type { AccompanyOnset, Sounded } from './onset.ts'
import type { HeldHarmony } from './patternOnsets.ts'
import type { SegmentShape } from './progressionShapes.ts'

/** What leads from one chord to the next. */
export interface ApproachRules {
  /** Bass runs: none, into chords a fourth higher, or into every chord. */
  readonly runs: 'none' | 'cadences' | 'all'
  readonly liftOff: boolean
  /** Chords whose bass strings the teacher says: no run takes their place. */
  readonly said: readonly BassOrder[]
}

/** Notes of a run, at most, and the least time (seconds) for each. Common practice, no source. */
const RUN_NOTES = 2
const LEAST_RUN_S = 0.22

/** Semitones from bass to bass of a cadence: a fourth up, or a fifth down, as the fifth degree falls home. */
const CADENCES: ReadonlySet<number> = new Set([5])

/** A change of two fingers or more within this time (seconds) of the last stroke gets it on open strings. No source. */
const FAST_CHANGE_S = 0.32
const FINGERS_THAT_MOVE = 2

interface Tune {
  readonly measures: readonly Measure[]
  readonly timeline: Timeline
  readonly keys: readonly Key[]
  /** The measures that are played after each, in one pass or another. */
  readonly next: ReadonlyMap<number, readonly number[]>
  readonly secondsBetween: (from: Ticks, to: Ticks) => number
}

/** A change of chord that an onset leads into. */
interface Change {
  readonly before: AccompanyOnset
  /** Where the next chord starts on the page, or the measure ends from which it is played. */
  readonly at: Ticks
  /** The segments that follow here in one pass or another. */
  readonly segments: readonly number[]
}

/**
 * Puts into the time before each change of chord what leads there: a bass run under the pattern's last beats, or
 * a last stroke on open strings. At the end of a measure that is followed by different ones in different passes, a run
 * is played only where all of them begin on the same bass.
 * @param onsets in order of time
 */
export function withApproaches(
  held: HeldHarmony,
  tune: Tune,
  onsets: readonly AccompanyOnset[],
  rules: ApproachRules,
): AccompanyOnset[] {
  let result = [...onsets]
  for (const change of changesOf(held, tune, onsets)) {
    const shape = held.harmony[change.before.segment]?.shape
    const isSaid = shape && saidStrings(rules.said, chordText(shape))
    const run = rules.runs === 'none' || isSaid ? [] : runInto(held, tune, change, rules.runs === 'all')
    if (run.length > 0) {
      const from = run[0]!.start
      const covered = result.filter((o) => o.start >= from && o.start < change.at)
      result = [
        ...result.filter((o) => o.start < from || o.start >= change.at),
        ...underPattern(held.setup, covered, run),
      ]
    } else if (rules.liftOff) {
      const lifted = liftedOff(held, tune, change)
      if (lifted) result = result.map((o) => (o === change.before ? lifted : o))
    }
  }
  return result.sort((a, b) => a.start - b.start)
}

function changesOf(held: HeldHarmony, tune: Tune, onsets: readonly AccompanyOnset[]): Change[] {
  const changes: Change[] = []
  onsets.forEach((before, i) => {
    const after = onsets[i + 1]
    if (after?.measure === before.measure) {
      const starts = before.segment !== after.segment && held.harmony[after.segment]!.start === after.start
      if (starts) changes.push({ before, at: after.start, segments: [after.segment] })
      return
    }
    // The measure ends here: what is played next is the form's business, not the page's.
    const next = (tune.next.get(before.measure) ?? []).map((m) => tune.timeline.starts[m]!)
    const segments = next.map((start) => held.harmony.findIndex((h) => h.start <= start && h.end > start))
    const at = tune.timeline.starts[before.measure]! + tune.measures[before.measure]!.length
    if (segments.length > 0) changes.push({ before, at, segments })
  })
  return changes
}

/** The shapes of a change, where every chord that may follow is another than the one before. */
function shapesOf(
  { shapes, harmony }: HeldHarmony,
  { before, segments }: Change,
): { from: SegmentShape; to: readonly SegmentShape[] } | undefined {
  const from = shapes.get(before.segment)
  const to = segments.flatMap((s) => {
    const shape = shapes.get(s)
    return shape && harmony[s]!.symbol !== harmony[before.segment]!.symbol ? [shape] : []
  })
  return from && to.length === segments.length ? { from, to } : undefined
}

function runInto(
  held: HeldHarmony,
  { measures, timeline, keys, secondsBetween }: Tune,
  change: Change,
  all: boolean,
): AccompanyOnset[] {
  const { setup, harmony } = held
  const { before, at } = change
  const shapes = shapesOf(held, change)
  if (!shapes) return []
  const [bass, ...others] = shapes.to.map((s) => bassPitch(setup, s.frets))
  if (others.some((b) => b !== bass)) return []
  if (!all && !CADENCES.has(mod12(present(bass) - bassPitch(setup, shapes.from.frets)))) return []
  const measure = measureAt(timeline, before.start)
  const { metre } = measures[measure]!
  const unit = isCompound(metre) ? beatLength(metre) / 3 : beatLength(metre)
  const start = harmony[before.segment]!.start
  // The chord itself keeps more than half of its time.
  const room = Math.floor((at - start) / unit / 2)
  const most = Math.min(RUN_NOTES, room)
  if (most < 1 || secondsBetween(at - unit, at) < LEAST_RUN_S) return []
  const places = bassRun(setup, keys[measure]!, bassPitch(setup, shapes.from.frets), present(bass), most)
  return places.map((place, k): AccompanyOnset => {
    const when = at - (places.length - k) * unit
    return lineNote(
      setup,
      { start: when, measure: measureAt(timeline, when), segment: before.segment },
      place,
      'bass',
    )
  })
}

/** The last stroke before a fast change, on open strings: the hand is already on its way. */
function liftedOff(held: HeldHarmony, { secondsBetween }: Tune, change: Change): AccompanyOnset | undefined {
  const { before, at } = change
  const shapes = shapesOf(held, change)
  if (!before.stroke || !shapes) return undefined
  if (before.sounds.some((s) => s.attack === 'muted')) return undefined
  if (secondsBetween(before.start, at) > FAST_CHANGE_S) return undefined
  const fewest = Math.min(
    ...shapes.to.map((to) => {
      const { moves } = chordChange(held.setup, shapes.from, to)
      return moves.filter((m) => m.kind === 'move' || m.kind === 'land').length
    }),
  )
  if (fewest < FINGERS_THAT_MOVE) return undefined
  const open: LeftFinger = 0
  return {
    ...before,
    sounds: before.sounds.map((s): Sounded => ({
      ...s,
      place: { string: s.place.string, fret: 0 },
      finger: open,
      role: 'harmony',
    })),
    hand: { pressed: [] },
  }
}
