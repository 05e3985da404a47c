import { measureAt, melodyOf, timelineOf } from '../form/timeline.ts'
import type { ChordMark, TuneDoc } from '../model/tune.ts'
import { scaleOf, spellInKey, type Key, type Mode } from '../pitch/key.ts'
import { midiOf, mod12, pitchClass, type PitchClass } from '../pitch/pitch.ts'
import { beatLength, isCompound } from '../time/metre.ts'
import type { Ticks } from '../time/ticks.ts'
import { chordText, type ChordReading } from './chordSymbol.ts'

/** Degrees (semitones above the tonic) whose triads a simple harmony uses, the commonest first. */
const USUAL_DEGREES: Readonly<Record<Mode, readonly number[]>> = {
  major: [0, 7, 5, 9, 2],
  lydian: [0, 7, 2, 9],
  mixolydian: [0, 10, 5, 7],
  minor: [0, 10, 7, 5, 3, 8],
  dorian: [0, 10, 5, 3],
  phrygian: [0, 1, 10, 8],
  locrian: [0, 10, 3],
}

/**
 * A simple harmony from the key's own triads: for each measure (half measure in long metres) the triad that holds most
 * of the melody, beats weighted, tonic at start and end. A suggestion only: every mark says so.
 */
export function suggestHarmony(tune: TuneDoc): ChordMark[] {
  const timeline = timelineOf(tune.measures)
  const melody = melodyOf(tune, timeline)
  const marks: ChordMark[] = []
  let before: string | undefined
  const lastFull = tune.measures.length - 1
  tune.measures.forEach((measure, i) => {
    const pickup = i === 0 && measure.length < measure.nominal
    if (pickup) return
    const start = timeline.starts[i]!
    const weights = new Map<PitchClass, number>()
    for (const note of melody) {
      if (note.start >= start + measure.length || note.start + note.duration <= start) continue
      const pc = mod12(midiOf(note.pitch))
      weights.set(
        pc,
        (weights.get(pc) ?? 0) + weightOf(note.start - start, overlap(note, start, measure.length), measure),
      )
    }
    const cadence = i === lastFull || measureAt(timeline, timeline.length - 1) === i
    const chord = bestTriad(measure.key, weights, cadence || marks.length === 0)
    const symbol = chordText(chord)
    if (symbol !== before) {
      marks.push({
        id: `h${i + 1}`,
        pos: { measure: measure.id, tick: 0 },
        symbol,
        parsed: chord,
        origin: 'suggested',
      })
    }
    before = symbol
  })
  return marks
}

function overlap(note: { start: Ticks; duration: Ticks }, start: Ticks, length: Ticks): Ticks {
  return Math.min(note.start + note.duration, start + length) - Math.max(note.start, start)
}

function weightOf(
  at: Ticks,
  length: Ticks,
  measure: { metre: TuneDoc['measures'][number]['metre'] },
): number {
  const beat = beatLength(measure.metre)
  const stress = at <= 0 ? 2 : at % beat === 0 ? (isCompound(measure.metre) ? 1.5 : 1.3) : 0.7
  return stress * (length / beat)
}

function bestTriad(key: Key, weights: ReadonlyMap<PitchClass, number>, wantsTonic: boolean): ChordReading {
  const scale = scaleOf(key)
  const tonic = pitchClass(key.tonic)
  let best: { chord: ChordReading; score: number } | undefined
  USUAL_DEGREES[key.mode].forEach((degree, rank) => {
    const chord = triadOn(mod12(tonic + degree), scale, key)
    const pcs = chord.intervals.map((s) => mod12(pitchClass(chord.root) + s))
    let score = -0.25 * rank + (wantsTonic && degree === 0 ? 2 : 0)
    for (const [pc, weight] of weights) score += pcs.includes(pc) ? weight : -0.5 * weight
    if (!best || score > best.score) best = { chord, score }
  })
  return best!.chord
}

/** The triad that the scale builds on a degree; on the fifth of a minor key the leading note is preferred. */
function triadOn(root: PitchClass, scale: readonly PitchClass[], key: Key): ChordReading {
  const has = (semitones: number) => scale.includes(mod12(root + semitones))
  const dominantOfMinor = key.mode === 'minor' && root === mod12(pitchClass(key.tonic) + 7)
  const { step, alter } = spellInKey(60 + root, key)
  const major = has(4) || dominantOfMinor
  const intervals = major ? [0, 4, 7] : has(7) ? [0, 3, 7] : [0, 3, 6]
  return { root: { step, alter }, quality: major ? '' : has(7) ? 'm' : 'dim', intervals }
}
