import { present } from '../../invariant.ts'
import type { Timeline } from '../../document/form/timeline.ts'
import type { Level } from '../../document/style.ts'
import type { Measure } from '../../document/tune.ts'
import { lastFret, type Setup } from '../../instrument/setup.ts'
import type { Key } from '../../music/pitch/key.ts'
import { mod12, pitchClass } from '../../music/pitch/pitch.ts'
import { segmentAt } from '../plan/harmonyLine.ts'
import { beatLength, beatStarts } from '../../music/time/metre.ts'
import type { AccompanyOnset, Sounded } from './onset.ts'
import type { HeldHarmony } from './patternOnsets.ts'
import { shufflePair, type HeldPlace } from './shufflePair.ts'

/**
 * The line of a turnaround above the root, in semitones: down from the octave to the sixth of the key's chord, so that
 * the fifth of the next measure follows. The simpler version plays root and fifth alone. Common practice, no source.
 */
const DESCENT = [12, 10, 9, 8]

/** Fingers of the descent over an open root: one after the other, the hand moves down with them. */
const DESCENT_FINGERS = [4, 3, 2, 1] as const

/** From this level on the whole descent is played; from level 3 the simpler version. */
const WHOLE_FROM = 4
const SIMPLE_FROM = 3

/**
 * Turns the last measure but one of a form home: where it stands on the key's first chord and the last measure leads
 * back (to the first or the fifth), a descending line over the root takes the place of the shuffle.
 * @param measures indices of the last two measures of the form
 */
export function withTurnaround(
  held: HeldHarmony,
  timeline: Timeline,
  tune: { readonly measures: readonly Measure[]; readonly keys: readonly Key[] },
  onsets: readonly AccompanyOnset[],
  [turn, home]: readonly [number, number],
  level: Level,
): AccompanyOnset[] {
  if (level < SIMPLE_FROM || turn < 0) return [...onsets]
  const { harmony, setup } = held
  const [start, end] = [timeline.starts[turn]!, timeline.starts[home]!]
  const degree = (at: number) => {
    const chord = harmony[segmentAt(harmony, at)]?.sounding
    return chord ? mod12(pitchClass(chord.root) - pitchClass(tune.keys[turn]!.tonic)) : -1
  }
  const last = degree(timeline.starts[home]! + tune.measures[home]!.length - 1)
  const onOneChord = segmentAt(harmony, start) === segmentAt(harmony, end - 1)
  if (degree(start) !== 0 || (last !== 0 && last !== 7) || !onOneChord) return [...onsets]
  const chord = present(harmony[segmentAt(harmony, start)]!.sounding)
  const pair = shufflePair(setup, pitchClass(chord.root))
  if (!pair) return [...onsets]
  const line = lineOf(setup, pair.root, pair.fifth, level >= WHOLE_FROM)
  if (!line) return [...onsets]
  const model = onsets.find((o) => o.start === start)
  if (!model) return [...onsets]
  const { metre } = tune.measures[turn]!
  // Long and short, as the shuffle before it.
  const strokes = beatStarts(metre).flatMap((at, k) => [
    { at, k },
    { at: at + (2 * beatLength(metre)) / 3, k },
  ])
  const turned = strokes.map(({ at, k }): AccompanyOnset => {
    const upper = line[Math.min(k, line.length - 1)]!
    const notes = [pair.root, upper]
    return {
      ...model,
      start: start + at,
      sounds: notes.map(({ place, finger }, i): Sounded => ({
        place,
        finger,
        role: i === 0 ? 'bass' : 'harmony',
        attack: 'pluck',
        optional: false,
      })),
      hand: {
        ...model.hand,
        pressed: notes.flatMap(({ place, finger }) => (finger === 0 ? [] : [{ ...place, finger }])),
      },
    }
  })
  return [...onsets.filter((o) => o.start < start || o.start >= end), ...turned].sort(
    (a, b) => a.start - b.start,
  )
}

/** The notes above the root, on the fifth's string; the whole descent needs an open root, as the hand moves. */
function lineOf(setup: Setup, root: HeldPlace, fifth: HeldPlace, whole: boolean): HeldPlace[] | undefined {
  if (!whole) return [fifth]
  if (root.finger !== 0) return undefined
  const { string, fret } = fifth.place
  const line = DESCENT.map((semitones, k): HeldPlace => ({
    place: { string, fret: fret + semitones - 7 },
    finger: DESCENT_FINGERS[k]!,
  }))
  return line.every((n) => n.place.fret >= 1 && n.place.fret <= lastFret(setup, string)) ? line : undefined
}
