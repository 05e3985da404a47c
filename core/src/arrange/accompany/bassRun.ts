import { lastFret, openPitch, pitchAt, type Place, type Setup } from '../../instrument/setup.ts'
import { scaleOf, type Key } from '../../music/pitch/key.ts'
import { mod12, type Midi } from '../../music/pitch/pitch.ts'

/** Highest fret of a run: it stays in the first position, a finger a fret. */
const RUN_FRET = 4

/**
 * The notes that walk from one chord's bass to the next: the two steps of the key's scale before the new bass, coming
 * from the side of the old one; one step where the two basses are neighbours. Common practice, no source.
 * @returns places on the bass strings, empty where the run does not lie in the first position
 * @example bassRun(guitarSetup(), G, 43, 48, 2) // A2 and B2 before C3
 */
export function bassRun(setup: Setup, key: Key, from: Midi, to: Midi, most: number): Place[] {
  if (from === to) return []
  const scale = scaleOf(key)
  const side = from < to ? -1 : 1
  const steps: Midi[] = []
  for (let midi = to + side; steps.length < most && midi !== from; midi += side) {
    if ((midi - from) * side > 0) break
    if (scale.includes(mod12(midi))) steps.push(midi)
  }
  const places = steps.map((midi) => bassPlace(setup, midi))
  return places.every((p) => p !== undefined) ? places.reverse() : []
}

/** The place of a bass note in the first position, on the highest of the bass strings that has it low down. */
function bassPlace(setup: Setup, midi: Midi): Place | undefined {
  const { strings } = setup.instrument
  for (let string = Math.min(4, strings); string <= strings; string++) {
    const fret = midi - openPitch(setup, string)
    if (fret >= 0 && fret <= Math.min(RUN_FRET, lastFret(setup, string))) return { string, fret }
  }
  return undefined
}

/** The lowest pitch of a held shape. */
export function bassPitch(setup: Setup, frets: readonly (number | null)[]): Midi {
  return Math.min(
    ...frets.flatMap((fret, i) => (fret === null ? [] : [pitchAt(setup, { string: i + 1, fret })])),
  )
}
