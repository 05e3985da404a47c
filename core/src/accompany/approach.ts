import type { Timeline } from '../form/timeline.ts'
import { measureAt } from '../form/timeline.ts'
import type { LeftFinger } from '../neck/hand.ts'
import type { Measure } from '../model/tune.ts'
import type { Key } from '../pitch/key.ts'
import { chordChange } from '../shapes/chordChange.ts'
import { beatLength, isCompound } from '../time/metre.ts'
import type { Ticks } from '../time/ticks.ts'
import { bassPitch, bassRun } from './bassRun.ts'
import { lineNote } from './lineNote.ts'
import type { AccompanyOnset, Sounded } from './onset.ts'
import type { HeldHarmony } from './patternOnsets.ts'

/** What leads from one chord to the next. */
export interface ApproachRules {
  readonly runs: boolean
  readonly liftOff: boolean
}

/** Notes of a run, at most, and the least time (seconds) for each. Common practice, no source. */
const RUN_NOTES = 2
const LEAST_RUN_S = 0.22

/** A change of two fingers or more within this time (seconds) of the last stroke gets it on open strings. No source. */
const FAST_CHANGE_S = 0.32
const FINGERS_THAT_MOVE = 2

interface Tune {
  readonly measures: readonly Measure[]
  readonly timeline: Timeline
  readonly keys: readonly Key[]
  readonly secondsBetween: (from: Ticks, to: Ticks) => number
}

/**
 * Puts into the time before each change of chord what leads there: a bass run in place of the pattern's last beats, or
 * a last stroke on open strings.
 * @param onsets in order of time
 */
export function withApproaches(
  held: HeldHarmony,
  tune: Tune,
  onsets: readonly AccompanyOnset[],
  rules: ApproachRules,
): AccompanyOnset[] {
  let result = [...onsets]
  for (let i = 1; i < onsets.length; i++) {
    const [before, after] = [onsets[i - 1]!, onsets[i]!]
    if (before.segment === after.segment || held.harmony[after.segment]!.start !== after.start) continue
    const run = rules.runs ? runInto(held, tune, before, after) : []
    if (run.length > 0) {
      const from = run[0]!.start
      result = [...result.filter((o) => o.start < from || o.start >= after.start), ...run]
    } else if (rules.liftOff) {
      const lifted = liftedOff(held, tune, before, after)
      if (lifted) result = result.map((o) => (o === before ? lifted : o))
    }
  }
  return result.sort((a, b) => a.start - b.start)
}

function runInto(
  { setup, harmony, shapes }: HeldHarmony,
  { measures, timeline, keys, secondsBetween }: Tune,
  before: AccompanyOnset,
  after: AccompanyOnset,
): AccompanyOnset[] {
  const [from, to] = [shapes.get(before.segment), shapes.get(after.segment)]
  if (!from || !to) return []
  const measure = measureAt(timeline, before.start)
  const { metre } = measures[measure]!
  const unit = isCompound(metre) ? beatLength(metre) / 3 : beatLength(metre)
  const start = harmony[before.segment]!.start
  // The chord itself keeps more than half of its time.
  const room = Math.floor((after.start - start) / unit / 2)
  const most = Math.min(RUN_NOTES, room)
  if (most < 1 || secondsBetween(after.start - unit, after.start) < LEAST_RUN_S) return []
  const places = bassRun(
    setup,
    keys[measure]!,
    bassPitch(setup, from.frets),
    bassPitch(setup, to.frets),
    most,
  )
  return places.map((place, k): AccompanyOnset => {
    const at = after.start - (places.length - k) * unit
    const when = { start: at, measure: measureAt(timeline, at), segment: before.segment }
    return lineNote(setup, when, place, 'bass')
  })
}

/** The last stroke before a fast change, on open strings: the hand is already on its way. */
function liftedOff(
  { setup, shapes }: HeldHarmony,
  { secondsBetween }: Tune,
  before: AccompanyOnset,
  after: AccompanyOnset,
): AccompanyOnset | undefined {
  const [from, to] = [shapes.get(before.segment), shapes.get(after.segment)]
  if (!before.stroke || !from || !to) return undefined
  if (before.sounds.some((s) => s.attack === 'muted')) return undefined
  if (secondsBetween(before.start, after.start) > FAST_CHANGE_S) return undefined
  const moves = chordChange(setup, from, to).moves.filter((m) => m.kind === 'move' || m.kind === 'land')
  if (moves.length < FINGERS_THAT_MOVE) return undefined
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
