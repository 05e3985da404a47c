import { fingeringsOf } from '../hand/grip/fingering.ts'
import { nameChord } from '../music/harmony/nameChord.ts'
import type { Setup } from '../instrument/setup.ts'
import { mod12 } from '../music/pitch/pitch.ts'
import { enumerateShapes } from './enumerateShapes.ts'
import { fingeredShape, type Shape } from './findShapes.ts'
import { soundingPitches } from './nameShape.ts'
import { USUAL_HIGHEST_FRET } from './shapeQuery.ts'

/** Other grips for the same notes, the easiest for the hand first. */
export interface SameNotes {
  /** Exactly the same pitches (an unison may be doubled or not). */
  readonly exact: readonly Shape[]
  /** The same pitch classes over the same bass note. */
  readonly alike: readonly Shape[]
}

/** How many of each are listed. */
const LISTED = 24

/**
 * Looks for an easier hand: every grip that sounds the same, ordered by strain.
 * @param frets string 1 first, counted from the capo
 */
export function sameNotes(setup: Setup, frets: readonly (number | null)[]): SameNotes {
  const pitches = soundingPitches(setup, frets)
  if (pitches.length === 0) return { exact: [], alike: [] }
  const wanted = [...new Set(pitches)].sort((a, b) => a - b).join()
  const classes = [...new Set(pitches.map(mod12))]
  const lowest = Math.min(...pitches)
  const name = nameChord(pitches)[0]
  const exact: Shape[] = []
  const alike: Shape[] = []
  enumerateShapes(
    setup,
    {
      allowed: classes,
      essential: classes.map((pc) => [pc]),
      bass: mod12(lowest),
      leave: [],
      ring: [],
      lowestFret: 1,
      highestFret: Math.max(USUAL_HIGHEST_FRET, ...frets.map((f) => f ?? 0)),
      fewestStrings: Math.min(pitches.length, 3),
    },
    setup.player,
    (onNeck) => {
      const other = onNeck.map((f, i) => (f ? f - setup.capo[i]! : f))
      if (other.every((f, i) => f === frets[i])) return
      const sounds = soundingPitches(setup, other)
      const same = [...new Set(sounds)].sort((a, b) => a - b).join() === wanted
      if (!same && sounds.length < Math.min(pitches.length, 4)) return
      const fingering = fingeringsOf(setup, other, setup.player, 1)[0]
      if (!fingering) return
      const list = same ? exact : alike
      list.push(fingeredShape(setup, name, other, fingering))
    },
  )
  const byStrain = (a: Shape, b: Shape) => a.strain - b.strain
  return { exact: exact.sort(byStrain).slice(0, LISTED), alike: alike.sort(byStrain).slice(0, LISTED) }
}
