import { HARMONICS } from '../../instrument/harmonics.ts'
import { lastFret, openPitch, pitchAt, placesOf, type Place, type Setup } from '../../instrument/setup.ts'
import { present } from '../../invariant.ts'
import type { Midi } from '../../music/pitch/pitch.ts'
import type { Slice } from '../plan/plan.ts'
import type { SliceLock } from './sliceLock.ts'

/** Places that a melody note may take: its own frets within reach, and harmonics where they serve. */
export function melodyPlaces(
  setup: Setup,
  midi: Midi,
  last: number,
  slice: Slice,
  beats: number,
  lock: SliceLock | undefined,
): readonly Place[] {
  const places = placesOf(setup, midi)
  const locked = lock?.melody?.place
  // A lock from before the tune was moved may hold another pitch: no place keeps both.
  if (locked) return pitchAt(setup, locked) === midi ? [locked] : []
  const near = places.filter((p) => p.fret <= last)
  const plain = near.length > 0 ? near : places
  return mayTouch(slice, plain, beats) ? [...plain, ...harmonicPlaces(setup, midi)] : plain
}

/** A note from this fret up is out of the way. No source. */
const FAR_FRET = 7

/** Beats that a harmonic needs to be touched and to ring: where all rings into one another, and as a colour among other notes. No source. */
const HARMONIC_BEATS = { ringing: 1, single: 2 } as const

/** Harmonics are offered where all rings into one another; elsewhere from level 4 on, for a long note up the neck. */
const mayTouch = ({ rules, level }: Slice, plain: readonly Place[], beats: number): boolean =>
  rules.ring
    ? level >= 3 && beats >= HARMONIC_BEATS.ringing
    : level >= 4 && beats >= HARMONIC_BEATS.single && plain.every((p) => p.fret >= FAR_FRET)

/** The strongest harmonics: an octave, an octave and a fifth, two octaves, each at its node nearest the nut. */
function harmonicPlaces(setup: Setup, midi: Midi): Place[] {
  return setup.tuning.flatMap((_, i) => {
    const string = i + 1
    return [2, 3, 4].flatMap((parts) => {
      const node = present(HARMONICS.find((h) => h.parts === parts))
      const sounds = openPitch(setup, string) + node.semitones
      const reachable = node.fret <= lastFret(setup, string)
      return sounds === midi && reachable ? [{ string, fret: node.fret, harmonic: parts }] : []
    })
  })
}
