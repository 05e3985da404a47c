import type { TuneEvent } from '../../document/tune.ts'
import { scaleOf, type Key } from '../../music/pitch/key.ts'
import { midiOf, mod12, type Midi } from '../../music/pitch/pitch.ts'

/**
 * Ornament signs of a source and the short notes that they put before their note, as steps of the scale above (+) and
 * below (−) it: a roll goes round its note from above; mordents touch the neighbour once, a trill twice. ABC standard
 * 2.1, section 4.14, for the signs; common practice, no source, for the notes.
 */
const SIGNS: Readonly<Record<string, readonly number[]>> = {
  irishroll: [0, 1, 0, -1],
  roll: [0, 1, 0, -1],
  turn: [1, 0, -1],
  uppermordent: [0, 1],
  pralltriller: [0, 1],
  mordent: [0, -1],
  lowermordent: [0, -1],
  trill: [0, 1, 0, 1],
}

export const isKnownOrnament = (sign: string): boolean => sign in SIGNS

/**
 * The pitches before a note that its source asks for: its grace notes, else those of its sign.
 * @param transposed semitones by which the melody is moved
 */
export function sourceGraces(
  { graces, ornaments, pitch }: Pick<TuneEvent, 'graces' | 'ornaments' | 'pitch'>,
  key: Key,
  transposed: number,
): Midi[] {
  if (graces.length > 0) return graces.map((g) => midiOf(g) + transposed)
  const steps = ornaments.map((o) => SIGNS[o]).find((s) => s)
  if (!steps || !pitch) return []
  const here = midiOf(pitch) + transposed
  return steps.map((s) => (s === 0 ? here : neighbour(here, Math.sign(s), key)))
}

/** The next step of the key's scale above or below a pitch. */
function neighbour(from: Midi, way: number, key: Key): Midi {
  const scale = scaleOf(key)
  for (let midi = from + way; ; midi += way) if (scale.includes(mod12(midi))) return midi
}
