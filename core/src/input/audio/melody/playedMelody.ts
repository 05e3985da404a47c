import { hertz } from '../../../music/pitch/pitch.ts'
import { QUARTER, type Ticks } from '../../../music/time/ticks.ts'
import { LOOK_S, onsetStrength } from '../onsetStrength.ts'
import { periodOf } from '../period.ts'
import { withinShare } from '../withinShare.ts'
import { atUsualRate } from '../usualRate.ts'
import { riseAt, risesOf } from '../risingPartials.ts'

/** A note that was played in. */
export interface PlayedNote {
  readonly midi: number
  readonly at: Ticks
  readonly length: Ticks
  /** True where its pitch or its place in time was not plain. */
  readonly isDoubtful: boolean
}

/** How a melody is played in. */
export interface PlayedIn {
  /** Quarter notes a minute of the clicks. */
  readonly bpm: number
  /** Ticks of the shortest note: places in time are drawn to this grid. */
  readonly grid: Ticks
  /** Milliseconds that everything comes late for reasons of the device. */
  readonly latencyMs: number
}

/** Notes that a voice or a string may have: from a low C up to a mandolin's highest. */
const LOWEST = 36
const HIGHEST = 93

/** Onset strength of a note against that of the strong ones, and at least; seconds between two notes at least. */
const STROKE_SHARE = 0.2
const LEAST_STROKE = 0.12
const APART_S = 0.08

/** Seconds of sound that say what a note is. */
const HEARD_S = { least: 0.08, most: 0.2 }

/** Evidence that a partial of a note should have, and that the note has at least in all. No source: set on other strings. */
const USUAL = 0.8
const LEAST = 1.2

/** How well a sound must repeat itself to be a pitch; and where it says another octave than its partials. */
const LEAST_CLARITY = 0.6

/** Decibels under its loudest at which a note has ended. */
const ENDED_DB = 26

/** Shares of the grid: a note that lies further off its place is doubtful. */
const OFF_GRID = 0.36

interface Beginning {
  readonly seconds: number
  readonly midi: number
  readonly isSure: boolean
}

/**
 * What was played one note at a time, sung or hummed, to clicks: a draft of notes on a grid. Yields the share that is done.
 * @param recorded mono, from the first beat on
 * @param recordedRate samples a second
 */
export function* playedMelody(
  recorded: Float32Array,
  recordedRate: number,
  { bpm, grid, latencyMs }: PlayedIn,
): Generator<number, readonly PlayedNote[]> {
  const { samples, rate } = atUsualRate(recorded, recordedRate)
  const levels = levelsOf(samples, rate)
  const loudest = levels.reduce((most, x) => Math.max(most, x), 0)
  if (loudest === 0) return []
  const strength = yield* withinShare(onsetStrength(samples, rate), 0, 0.5)
  const strokes = withSoftBeginnings(strokesIn(strength), levels, loudest)
  const beginnings: Beginning[] = []
  for (const [i, seconds] of strokes.entries()) {
    const next = strokes[i + 1] ?? samples.length / rate
    const pitch = pitchAt(samples, rate, seconds, next)
    const slides = pitch ? changesIn(samples, rate, seconds, next, pitch.midi) : []
    if (pitch) beginnings.push({ seconds, ...pitch })
    beginnings.push(...slides)
    yield 0.5 + (0.5 * i) / strokes.length
  }
  const ticksAt = (seconds: number) => ((seconds - latencyMs / 1000) * bpm * QUARTER) / 60
  const placed: (PlayedNote & { readonly seconds: number })[] = []
  for (const b of withoutEchoes(beginnings)) {
    const exact = ticksAt(b.seconds)
    const at = Math.max(0, Math.round(exact / grid) * grid)
    const last = placed.at(-1)
    // Two notes on one place: the second one goes on the next.
    const own = last && at <= last.at ? last.at + grid : at
    const isOff = Math.abs(exact - own) > OFF_GRID * grid
    placed.push({ midi: b.midi, at: own, length: grid, isDoubtful: !b.isSure || isOff, seconds: b.seconds })
  }
  return placed.map(({ seconds, ...note }, i) => {
    const next = placed[i + 1]
    const end = ticksAt(endOf(levels, seconds, next?.seconds ?? samples.length / rate))
    const length = Math.max(grid, Math.round((end - note.at) / grid) * grid)
    return { ...note, length: next ? Math.min(length, next.at - note.at) : length }
  })
}

/** Root mean square of every hundredth of a second. */
function levelsOf(samples: Float32Array, rate: number): Float64Array {
  const block = Math.round(LEVEL_S * rate)
  return Float64Array.from({ length: Math.floor(samples.length / block) }, (_, i) => {
    let energy = 0
    for (let k = i * block; k < (i + 1) * block; k++) energy += samples[k]! ** 2
    return Math.sqrt(energy / block)
  })
}

const LEVEL_S = 0.01

/** Seconds at which a note has died away, or the next one begins. */
function endOf(levels: Float64Array, from: number, to: number): number {
  const [first, last] = [Math.round(from / LEVEL_S), Math.min(levels.length, Math.round(to / LEVEL_S))]
  let most = 0
  for (let i = first; i < last; i++) most = Math.max(most, levels[i]!)
  const low = most * 10 ** (-ENDED_DB / 20)
  let end = last
  while (end > first + 1 && levels[end - 1]! < low) end--
  return end * LEVEL_S
}

/** Seconds at which something is struck. */
function strokesIn(strength: Float64Array): readonly number[] {
  const strong = [...strength].sort((a, b) => b - a)[Math.floor(strength.length / 100)] ?? 0
  const least = Math.max(LEAST_STROKE, STROKE_SHARE * strong)
  const found: number[] = []
  for (let i = 0; i + 1 < strength.length; i++) {
    const x = strength[i]!
    if (x < least || x < (strength[i - 1] ?? 0) || x < strength[i + 1]!) continue
    const last = found.at(-1)
    if (last === undefined || (i - last) * LOOK_S >= APART_S) found.push(i)
    else if (x > strength[last]!) found[found.length - 1] = i
  }
  return found.map((i) => i * LOOK_S)
}

/** A voice begins without a stroke: where sound comes out of silence. */
function withSoftBeginnings(
  strokes: readonly number[],
  levels: Float64Array,
  loudest: number,
): readonly number[] {
  const heard = loudest * 10 ** (-SILENT_DB / 20)
  const soft: number[] = []
  levels.forEach((x, i) => {
    if (x < heard || (levels[i - 1] ?? 0) >= heard || (levels[i - 2] ?? 0) >= heard) return
    const seconds = i * LEVEL_S
    if (strokes.every((s) => Math.abs(s - seconds) > SOFT_S)) soft.push(seconds)
  })
  return [...strokes, ...soft].sort((a, b) => a - b)
}

/** Decibels under the loudest that are silence, and seconds around a stroke in which nothing else begins. */
const SILENT_DB = 24
const SOFT_S = 0.15

/** The pitch of what begins at a moment; undefined where nothing with a pitch does. */
function pitchAt(
  samples: Float32Array,
  rate: number,
  from: number,
  to: number,
): { readonly midi: number; readonly isSure: boolean } | undefined {
  const length = Math.min(HEARD_S.most, Math.max(HEARD_S.least, to - from - 0.01))
  const rise = riseAt(samples, rate, Math.round(from * rate), Math.round(length * rate))
  const scores: { midi: number; score: number; odd: number; even: number }[] = []
  for (let midi = LOWEST; midi <= HIGHEST; midi++) {
    const rises = risesOf(rise, hertz(midi))
    let score = 0
    rises.forEach((x, i) => (score += (x - USUAL) / Math.sqrt(i + 1)))
    scores.push({ midi, score, odd: meanOf(rises, 0), even: meanOf(rises, 1) })
  }
  const best = scores.reduce((a, b) => (b.score > a.score ? b : a))
  if (best.score < LEAST) return undefined
  // Its lower octave explains as much where the partials between are there too.
  const lower = scores[best.midi - 12 - LOWEST]
  const found = lower && lower.score > 0.6 * best.score && lower.odd > 0.5 * lower.even ? lower : best
  const heard = periodIn(samples, rate, from, to)
  const agrees = heard !== undefined && Math.abs(heard - found.midi) < 0.6
  const rival = scores.reduce(
    (most, s) => (Math.abs(s.midi - found.midi) % 12 === 0 ? most : Math.max(most, s.score)),
    0,
  )
  return { midi: found.midi, isSure: agrees || rival < 0.6 * found.score }
}

/** Mean of every other partial, the first or the second of them on. */
function meanOf(rises: readonly number[], from: 0 | 1): number {
  const own = rises.filter((_, i) => i % 2 === from)
  return own.reduce((a, b) => a + b, 0) / Math.max(1, own.length)
}

/** The pitch that repeats itself best a moment after a stroke, in semitones; undefined where none does. */
function periodIn(samples: Float32Array, rate: number, from: number, to: number): number | undefined {
  const first = Math.round((from + 0.02) * rate)
  const last = Math.min(samples.length, Math.round(Math.min(to, from + 0.02 + PERIOD_S) * rate))
  if (last - first < 0.04 * rate) return undefined
  const period = periodOf(samples.slice(first, last), rate, { low: hertz(LOWEST), high: hertz(HIGHEST) })
  if (!period || period.clarity < LEAST_CLARITY) return undefined
  return 69 + 12 * Math.log2(rate / period.samples / 440)
}

const PERIOD_S = 0.1

/** Looks a second at a pitch that goes on, and how many must agree that it has become another. */
const GLANCE_S = 0.03
const AGREEING = 3

/** Notes that begin without a stroke: a voice that goes from one to the next, a hammer-on. */
function changesIn(
  samples: Float32Array,
  rate: number,
  from: number,
  to: number,
  first: number,
): Beginning[] {
  const found: Beginning[] = []
  let now = first
  let other: { midi: number; since: number; times: number } | undefined
  for (let at = from + 0.1; at + PERIOD_S < to; at += GLANCE_S) {
    const heard = periodIn(samples, rate, at - 0.02, at + PERIOD_S)
    const midi = heard === undefined ? now : Math.round(heard)
    if (heard === undefined || midi === now || (midi - now) % 12 === 0 || Math.abs(heard - midi) > 0.35) {
      if (midi === now) other = undefined
      continue
    }
    other =
      other?.midi === midi
        ? { ...other, times: other.times + 1 }
        : { midi, since: at + PERIOD_S / 2, times: 1 }
    if (other.times < AGREEING) continue
    found.push({ seconds: other.since, midi, isSure: false })
    now = midi
    other = undefined
  }
  return found
}

/** A stroke of the same pitch right after another one is its echo. */
const withoutEchoes = (all: readonly Beginning[]): readonly Beginning[] =>
  all.filter((b, i) => {
    const before = all[i - 1]
    return !before || before.midi !== b.midi || b.seconds - before.seconds >= 1.3 * APART_S
  })
