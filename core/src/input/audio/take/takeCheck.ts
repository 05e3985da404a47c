import { evidenceOf, presenceOf, riseAt, type Rise } from '../risingPartials.ts'
import { atUsualRate } from '../usualRate.ts'
import { LOOK_S, onsetStrength } from '../onsetStrength.ts'
import { withinShare } from '../withinShare.ts'
import type { ExpectedNote } from './expectedNotes.ts'

/** What is said of one note of a take. */
export interface NoteHeard {
  readonly verdict: 'heard' | 'unclear' | 'otherFret'
  /** Frets from the written one to the one that was probably played. */
  readonly fretsOff?: number
  /** Milliseconds after its time (before it: negative); absent where no stroke was found for it. */
  readonly lateMs?: number
}

/** What is said of a take. One that could not be followed says nothing else. */
export type TakeReading =
  { readonly followed: false } | { readonly followed: true; readonly notes: readonly NoteHeard[] }

/** Share of moments in which a note that is written, or one beside it, must be heard. */
export const LEAST_FOLLOWED = 0.8

/**
 * By how much more of the notes must be heard where they are written than where they are not: a sound that is the same throughout shares
 * partials with many notes and is "heard" as any of them, anywhere. On takes of other strings it was 0.47 and more, on one note struck over
 * and over 0.03 and less.
 */
const MORE_IN_PLACE = 0.25

/** Moments and notes of other moments, at most, by which what is heard out of place is judged. */
const JUDGED_BY = { moments: 24, notes: 8 }

/** Seconds within which strokes belong to one moment, and within which one is looked for around its time. */
const ONE_MOMENT_S = 0.05
const LOOKED_AROUND_S = 0.2

/** Seconds of sound that say what a note is, at least and at most. */
const HEARD_S = { least: 0.07, most: 0.2 }

/** Frets beside the written one that are thought of. */
const BESIDE = [-4, -3, -2, -1, 1, 2, 3, 4]

/**
 * Evidence (0 to 4) from which a note is heard, and is heard surely; how much more a neighbour may have then; and from which a neighbour is
 * heard instead, and by how much. No source: set on takes of other strings.
 */
const IS_HEARD = 0.85
const IS_SURE = 1.8
const WITHOUT_FIRST = 1.2
const NEARLY_AS_MUCH = 1.2
const AS_MUCH_WHERE_SURE = 1.45
const IS_OTHER = 1.2
const CLEARLY_MORE = 1.6

/** Onset strength that a stroke has at least. */
const LEAST_STROKE = 0.1

interface Moment {
  readonly seconds: number
  readonly notes: readonly number[]
}

/**
 * Listens to a take of what is written: is each note there, or one beside it, and how early or late. An aid, never a grade: it looks
 * for what should be there and hears nothing else. Yields the share that is done.
 * @param recorded mono, from the beginning of the stretch on
 * @param recordedRate samples a second
 * @param latencyMs milliseconds that everything comes late for reasons of the device
 */
export function* takeCheck(
  recorded: Float32Array,
  recordedRate: number,
  expected: readonly ExpectedNote[],
  latencyMs: number,
): Generator<number, TakeReading> {
  if (expected.length === 0) return { followed: false }
  const { samples, rate } = atUsualRate(recorded, recordedRate)
  const strength = yield* withinShare(onsetStrength(samples, rate), 0, 0.5)
  const moments = momentsOf(expected)
  const strokes = strokesOf(strength, moments, latencyMs / 1000)
  const off = tuningOff(samples, rate, expected, moments, strokes)
  const notes = new Array<NoteHeard>(expected.length)
  let followed = 0
  const outOfPlace = { asked: 0, heard: 0 }
  const everyMoment = Math.ceil(moments.length / JUDGED_BY.moments)
  for (const [m, { seconds, notes: own }] of moments.entries()) {
    const due = seconds + latencyMs / 1000
    const stroke = strokes[m]
    const at = stroke?.seconds ?? due
    const next = strokes[m + 1]?.seconds ?? (moments[m + 1]?.seconds ?? Infinity) + latencyMs / 1000
    const length = Math.min(HEARD_S.most, Math.max(HEARD_S.least, next - at - 0.01))
    const rise = riseAt(samples, rate, Math.round(at * rate), Math.round(length * rate))
    let somePitch = false
    for (const n of own) {
      const heard = verdictOf(rise, expected, n, own, off, stroke !== undefined)
      somePitch ||= heard.verdict !== 'unclear'
      const { isStruck } = expected[n]!
      notes[n] =
        heard.verdict !== 'unclear' && stroke && isStruck
          ? { ...heard, lateMs: Math.round(1000 * (stroke.seconds - due)) }
          : heard
    }
    if (somePitch) followed++
    if (m % everyMoment === 0)
      for (const n of elsewhereOnly(expected, own)) {
        outOfPlace.asked++
        if (verdictOf(rise, expected, n, [n], off, stroke !== undefined).verdict === 'heard')
          outOfPlace.heard++
      }
    yield 0.5 + (0.5 * m) / moments.length
  }
  if (followed < LEAST_FOLLOWED * moments.length) return { followed: false }
  const byChance = outOfPlace.asked > 0 ? outOfPlace.heard / outOfPlace.asked : 0
  return shareInPlace(notes) < byChance + MORE_IN_PLACE ? { followed: false } : { followed: true, notes }
}

/** Notes that are written at other moments and not at this one, evenly from the whole. */
function elsewhereOnly(expected: readonly ExpectedNote[], own: readonly number[]): readonly number[] {
  const strange = [...expected.keys()].filter((n) =>
    own.every((o) => Math.abs(expected[o]!.hertz / expected[n]!.hertz - 1) > 0.01),
  )
  const every = Math.ceil(strange.length / JUDGED_BY.notes)
  return strange.filter((_, i) => i % every === 0)
}

/** Share of the notes that are heard, or that all lie as many frets off as most do: a capo that was put elsewhere. */
function shareInPlace(notes: readonly NoteHeard[]): number {
  const counts = new Map<number, number>()
  for (const { verdict, fretsOff = 0 } of notes)
    if (verdict !== 'unclear') counts.set(fretsOff, (counts.get(fretsOff) ?? 0) + 1)
  return Math.max(0, ...counts.values()) / notes.length
}

/** Notes that begin together, in order of time. */
function momentsOf(expected: readonly ExpectedNote[]): readonly Moment[] {
  const order = expected.map((_, i) => i).sort((a, b) => expected[a]!.seconds - expected[b]!.seconds)
  const moments: { seconds: number; notes: number[] }[] = []
  for (const n of order) {
    const { seconds } = expected[n]!
    const last = moments.at(-1)
    if (last && seconds - last.seconds < ONE_MOMENT_S) last.notes.push(n)
    else moments.push({ seconds, notes: [n] })
  }
  return moments
}

interface Stroke {
  readonly seconds: number
}

/** The strongest beginning near each moment, nearer ones before others; each is found once, none before the one before it. */
function strokesOf(
  strength: Float64Array,
  moments: readonly Moment[],
  latency: number,
): readonly (Stroke | undefined)[] {
  let last = -Infinity
  return moments.map(({ seconds }, m) => {
    const due = seconds + latency
    const before = due - (moments[m - 1]?.seconds ?? -Infinity) - latency
    const after = (moments[m + 1]?.seconds ?? Infinity) + latency - due
    const from = Math.max(due - Math.min(LOOKED_AROUND_S, before * 0.5), last + 0.04)
    const to = due + Math.min(LOOKED_AROUND_S, after * 0.6)
    let best: { look: number; weight: number } | undefined
    for (let look = Math.max(1, Math.ceil(from / LOOK_S)); look <= to / LOOK_S; look++) {
      const x = strength[look] ?? 0
      if (x < LEAST_STROKE || x < (strength[look - 1] ?? 0) || x < (strength[look + 1] ?? 0)) continue
      const away = (look * LOOK_S - due) / LOOKED_AROUND_S
      const weight = x * Math.exp(-1.5 * away * away)
      if (!best || weight > best.weight) best = { look, weight }
    }
    if (!best) return undefined
    last = best.look * LOOK_S
    return { seconds: last }
  })
}

/** Cents that the instrument as a whole may lie off, as they are tried. */
const OFFS = [-45, -30, -15, 0, 15, 30, 45]

/** How far the instrument lies off as a whole: where the written notes have the most evidence. */
function tuningOff(
  samples: Float32Array,
  rate: number,
  expected: readonly ExpectedNote[],
  moments: readonly Moment[],
  strokes: readonly (Stroke | undefined)[],
): number {
  const totals = OFFS.map(() => 0)
  const step = Math.max(1, Math.floor(moments.length / 24))
  for (let m = 0; m < moments.length; m += step) {
    const stroke = strokes[m]
    if (!stroke) continue
    const rise = riseAt(samples, rate, Math.round(stroke.seconds * rate), Math.round(HEARD_S.most * rate))
    OFFS.forEach((cents, i) => {
      for (const n of moments[m]!.notes)
        totals[i] = totals[i]! + evidenceOf(rise, expected[n]!.hertz * 2 ** (cents / 1200), []).score
    })
  }
  // In tune unless another place is clearly better.
  const inTune = OFFS.indexOf(0)
  const best = totals.indexOf(Math.max(...totals))
  return totals[best]! > 1.05 * totals[inTune]! ? OFFS[best]! : 0
}

function verdictOf(
  rise: Rise,
  expected: readonly ExpectedNote[],
  note: number,
  together: readonly number[],
  offCents: number,
  isStroke: boolean,
): NoteHeard {
  const factor = 2 ** (offCents / 1200)
  const own = expected[note]!.hertz * factor
  const others = together
    .filter((n) => n !== note && Math.abs(expected[n]!.hertz / expected[note]!.hertz - 1) > 0.01)
    .map((n) => expected[n]!.hertz * factor)
  const { score, lacksFirst } = evidenceOf(rise, own, others)
  let best = { fretsOff: 0, score: 0 }
  for (const fretsOff of BESIDE) {
    const hertz = own * 2 ** (fretsOff / 12)
    if (expected[note]!.fret + fretsOff < 0) continue
    if (others.some((o) => Math.abs(o / hertz - 1) < 0.02)) continue
    const beside = evidenceOf(rise, hertz, others).ownScore
    if (beside > best.score) best = { fretsOff, score: beside }
  }
  const most = score >= IS_SURE ? AS_MUCH_WHERE_SURE : NEARLY_AS_MUCH
  if (score >= (lacksFirst ? WITHOUT_FIRST : IS_HEARD) && best.score < most * score)
    return { verdict: 'heard' }
  // What sounds already does not rise where it is struck again: then a stroke, and nothing else that rises, say it.
  const again = isStroke && together.length === 1 && best.score < IS_HEARD && soundsAlready(expected, note)
  if (again && presenceOf(rise, own) >= IS_SURE) return { verdict: 'heard' }
  return best.score >= IS_OTHER && best.score > CLEARLY_MORE * score
    ? { verdict: 'otherFret', fretsOff: best.fretsOff }
    : { verdict: 'unclear' }
}

/** Seconds in which a string still sounds from the stroke before. */
const STILL_SOUNDS_S = 1

const soundsAlready = (expected: readonly ExpectedNote[], note: number): boolean => {
  const { hertz, seconds, string } = expected[note]!
  return expected.some(
    (o) =>
      o.string === string &&
      Math.abs(o.hertz / hertz - 1) < 0.01 &&
      o.seconds < seconds - ONE_MOMENT_S &&
      o.seconds > seconds - STILL_SOUNDS_S,
  )
}
