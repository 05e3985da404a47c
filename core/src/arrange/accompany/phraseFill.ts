import type { MelodyNote, Timeline } from '../../document/form/timeline.ts'
import { measureAt } from '../../document/form/timeline.ts'
import { chordPitchClasses, type ChordReading } from '../../music/harmony/chordSymbol.ts'
import type { Measure } from '../../document/tune.ts'
import { openPitch, pitchAt, type Place, type Setup } from '../../instrument/setup.ts'
import { mod12, pitchClass } from '../../music/pitch/pitch.ts'
import { segmentAt } from '../plan/harmonyLine.ts'
import { beatLength, isCompound, missingHead } from '../../music/time/metre.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import { lineNote } from './lineNote.ts'
import type { AccompanyOnset } from './onset.ts'
import type { HeldHarmony } from './patternOnsets.ts'

/** A singer’s rest of this many beats and more is filled, but for its last beat. No source. */
const LEAST_REST = 2

/** Notes nearer to one another than this (seconds) would hurry. No source. */
const LEAST_NOTE_S = 0.14

/** Pentatonic scales in semitones above the chord's root. */
const MAJOR = [0, 2, 4, 7, 9]
const MINOR = [0, 3, 5, 7, 10]

interface Song {
  readonly measures: readonly Measure[]
  readonly timeline: Timeline
  readonly sung: readonly MelodyNote[]
  readonly secondsBetween: (from: Ticks, to: Ticks) => number
}

/**
 * Answers the singer: where the melody rests for two beats and more, a line of the chord's pentatonic scale in the
 * first position runs down to a tone of the chord, in half beats, in place of the pattern. In a shuffle it runs in thirds of
 * the beat, and on to where the singer comes in again.
 * @param from the accompanied stretch of written time, with `to`
 */
export function withPhraseFills(
  held: HeldHarmony,
  song: Song,
  onsets: readonly AccompanyOnset[],
  from: Ticks,
  to: Ticks,
  shuffles: boolean,
): AccompanyOnset[] {
  let result = [...onsets]
  for (const rest of restsOf(song, from, to, shuffles)) {
    const fill = fillOf(held, song, rest, shuffles)
    if (fill.length === 0) continue
    const [start, end] = [fill[0]!.start, rest.to]
    // Where a chord begins inside the rest, its own onset stays.
    const kept = result.filter(
      (o) => o.start < start || o.start >= end || held.harmony[o.segment]!.start === o.start,
    )
    const taken = new Set(kept.map((o) => o.start))
    result = [...kept, ...fill.filter((f) => !taken.has(f.start))].sort((a, b) => a.start - b.start)
  }
  return result
}

/** Time to be filled: on beats, after the last sung note and up to a beat before the next, or to the next. */
function restsOf(
  { measures, timeline, sung }: Song,
  from: Ticks,
  to: Ticks,
  toTheEnd: boolean,
): { from: Ticks; to: Ticks }[] {
  const rests: { from: Ticks; to: Ticks }[] = []
  const own = sung.filter((n) => n.start >= from && n.start < to)
  own.forEach((note, i) => {
    const end = note.start + note.duration
    const next = own[i + 1]?.start ?? to
    const m = measureAt(timeline, note.start)
    const beat = beatLength(measures[m]!.metre)
    if (next - end < LEAST_REST * beat) return
    const zero = timeline.starts[m]! - missingHead(measures[m]!)
    const first = zero + Math.ceil((end - zero) / beat) * beat
    rests.push({ from: first, to: toTheEnd ? next : next - beat })
  })
  return rests
}

function fillOf(
  { setup, harmony, shapes }: HeldHarmony,
  { measures, timeline, secondsBetween }: Song,
  rest: { from: Ticks; to: Ticks },
  shuffles: boolean,
): AccompanyOnset[] {
  const { metre } = measures[measureAt(timeline, rest.from)]!
  const beat = beatLength(metre)
  const step = isCompound(metre) || shuffles ? beat / 3 : beat / 2
  const isFast = secondsBetween(rest.from, rest.from + step) < LEAST_NOTE_S
  if (isFast && !shuffles) return []
  const times: Ticks[] = []
  // Too fast for every third of the beat, a shuffle keeps its first and last.
  for (let at = rest.from; at < rest.to; at += step)
    if (!isFast || (at - rest.from) % beat !== step) times.push(at)
  const chord = harmony[segmentAt(harmony, rest.from)]?.sounding
  if (!chord || times.length < 2) return []
  const line = descending(setup, chord, times.length)
  return times.flatMap((start, k): AccompanyOnset[] => {
    const place = line[k]
    const segment = segmentAt(harmony, start)
    if (!place || !shapes.has(segment)) return []
    return [lineNote(setup, { start, measure: measureAt(timeline, start), segment }, place, 'fill')]
  })
}

/** Highest fret of a fill's first position. */
const FILL_FRET = 4

/**
 * So many notes down the chord's pentatonic scale in the first position, the last one a tone of the chord, as high as
 * that allows; a line that is too long for the position turns back up.
 */
export function descending(setup: Setup, chord: ChordReading, count: number): Place[] {
  const scale = (chord.intervals.includes(3) ? MINOR : MAJOR).map((s) => mod12(s + pitchClass(chord.root)))
  const byPitch = new Map<number, Place>()
  for (let string = Math.min(4, setup.instrument.strings); string >= 1; string--)
    for (let fret = 0; fret <= FILL_FRET; fret++) {
      const place = { string, fret }
      const midi = pitchAt(setup, place)
      if (!scale.includes(mod12(midi)) || midi > openPitch(setup, 1) + 3) continue
      const known = byPitch.get(midi)
      if (!known || place.fret < known.fret) byPitch.set(midi, place)
    }
  const down = [...byPitch].sort((a, b) => b[0] - a[0]).map(([, place]) => place)
  if (down.length < 2) return []
  const tones = chordPitchClasses(chord)
  const wave = [...down, ...down.slice(1, -1).reverse()]
  for (let first = 0; first < wave.length; first++) {
    const line = Array.from({ length: count }, (_, k) => wave[(first + k) % wave.length]!)
    if (tones.includes(mod12(pitchAt(setup, line.at(-1)!)))) return line
  }
  return []
}
