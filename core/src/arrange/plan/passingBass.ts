import { measureAt, type Timeline } from '../../document/form/timeline.ts'
import { scaleOf, type Key } from '../../music/pitch/key.ts'
import { mod12, pitchClass, type PitchClass } from '../../music/pitch/pitch.ts'
import { bassPitchClass, chordPitchClasses, type ChordReading } from '../../music/harmony/chordSymbol.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import type { PlannedBass } from './bassLine.ts'
import type { Ending } from './endings.ts'
import type { HarmonySegment } from './harmonyLine.ts'
import { steppingInversion } from './steppingInversion.ts'

/** Less time than this (seconds) between two basses leaves none to hear a step. Common practice, no source. */
const LEAST_STEP_S = 0.3

/** A bass of so many seconds stays: it is heard as the chord's own. Common practice, no source. */
const STAYS_S = 1.2

/** Semitones up to the next root between which a step leads: thirds, fourths, fifths, sixths. */
const LEAPS: ReadonlySet<number> = new Set([3, 4, 5, 7, 8, 9])

interface Lines {
  readonly timeline: Timeline
  readonly harmony: readonly HarmonySegment[]
  /** The sounding key of each measure. */
  readonly keys: readonly Key[]
  readonly secondsBetween: (from: Ticks, to: Ticks) => number
  readonly endings: readonly Ending[]
  /** Measures whose start is a join of the played order: what follows differs from pass to pass. */
  readonly joins: ReadonlySet<number>
}

/**
 * Lets a bass that would repeat the chord before a change step to the next root instead: the note of the key below it where the
 * line goes up a third or fourth, the one above it where it goes down. Where no root is asked for, a chord between two others may be turned
 * over for a line that steps. Equal measures step alike, or not at all.
 * @param contents of each measure (`bassContents`)
 * @param passesAt true for measures whose style and level walk
 * @param turnsAt true for those of them whose school leaves the root to the hand
 */
export function passingBass(
  bass: readonly PlannedBass[],
  lines: Lines,
  contents: (measure: number) => string,
  passesAt: (measure: number) => boolean,
  turnsAt: (measure: number) => boolean,
): PlannedBass[] {
  const steps = bass.map((b, i) => stepInto(bass, i, lines, passesAt) ?? turned(b, lines, turnsAt))
  if (steps.every((s) => s === undefined)) return [...bass]
  /** By what a measure holds and the bass in it: the step; undefined where there is none, or equal measures want different ones. */
  const agreed = new Map<string, PitchClass | undefined>()
  const keyOf = (b: PlannedBass) => {
    const m = measureAt(lines.timeline, b.start)
    return `${b.start - lines.timeline.starts[m]!}|${contents(m)}`
  }
  bass.forEach((b, i) => {
    const key = keyOf(b)
    agreed.set(key, agreed.has(key) && agreed.get(key) !== steps[i] ? undefined : steps[i])
  })
  return bass.map((b) => {
    const passing = agreed.get(keyOf(b))
    return passing === undefined ? b : { ...b, kind: 'passing', passing }
  })
}

function stepInto(
  bass: readonly PlannedBass[],
  i: number,
  { timeline, harmony, keys, secondsBetween, joins, endings }: Lines,
  passesAt: (measure: number) => boolean,
): PitchClass | undefined {
  const own = bass[i]!
  const next = bassAfter(own, bass[i + 1], harmony, endings)
  if (!next || own.change || !next.change || own.until < next.start) return undefined
  if (own.kind !== 'alternate' && own.kind !== 'root') return undefined
  const m = measureAt(timeline, own.start)
  const into = measureAt(timeline, next.start)
  if (!passesAt(m) || (into !== m && joins.has(into))) return undefined
  if (secondsBetween(own.start, next.start) < LEAST_STEP_S) return undefined
  const [here, there] = [harmony[own.segment]?.sounding, harmony[next.segment]?.sounding]
  if (!here || !there) return undefined
  const target = bassPitchClass(there)
  const up = mod12(target - bassPitchClass(here))
  if (!LEAPS.has(up)) return undefined
  // A leap of a fifth and more goes the other way round.
  const side = up <= 5 ? -1 : 1
  const step = [1, 2].map((n) => mod12(target + side * n)).find((pc) => passes(pc, keys[m]!, here))
  if (step === undefined || step === pitchClass(here.root)) return undefined
  // A bass that stays from the first beat on is heard as the chord's own: what only passes comes later.
  const stays = own.start === timeline.starts[m] && secondsBetween(own.start, next.start) >= STAYS_S
  if (stays && !chordPitchClasses(here).includes(step)) return undefined
  return step
}

/** Thirds and sevenths, minor and major, in semitones over the root. */
const SHADES = [
  [3, 4],
  [10, 11],
] as const

/**
 * True for a note that a bass may pass through under a chord: one of the chord's, or one of the key's that is not the other
 * third or seventh of the chord (a false relation; strict counterpoint, from memory).
 */
function passes(pc: PitchClass, key: Key, chord: ChordReading): boolean {
  const tones = chordPitchClasses(chord)
  if (tones.includes(pc)) return true
  const root = pitchClass(chord.root)
  const over = mod12(pc - root)
  const rubs = SHADES.some((pair) =>
    pair.some((n, i) => n === over && tones.includes(mod12(root + pair[1 - i]!))),
  )
  return scaleOf(key).includes(pc) && !rubs
}

/** The third of a new chord, where the bass steps through it. */
function turned(
  { start, change, kind, segment }: PlannedBass,
  { timeline, harmony, joins }: Lines,
  turnsAt: (measure: number) => boolean,
): PitchClass | undefined {
  const m = measureAt(timeline, start)
  // Another chord may come before it, or after, on another pass.
  if (!change || kind !== 'root' || !turnsAt(m) || joins.has(m) || joins.has(m + 1)) return undefined
  return steppingInversion(harmony, segment)
}

/** What the bass goes to: the next one, or the chord on which the music comes to rest. */
function bassAfter(
  own: PlannedBass,
  next: PlannedBass | undefined,
  harmony: readonly HarmonySegment[],
  endings: readonly Ending[],
): Pick<PlannedBass, 'start' | 'segment' | 'change'> | undefined {
  const rest = endings.find((e) => e.at > own.start)
  if (!rest || (next && next.start < rest.at)) return next
  return { start: rest.at, segment: rest.segment, change: harmony[rest.segment]!.start === rest.at }
}
