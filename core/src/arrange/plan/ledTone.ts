import type { ChordReading } from '../../music/harmony/chordSymbol.ts'
import { mod12, pitchClass, type PitchClass } from '../../music/pitch/pitch.ts'

/** A tone of a chord that goes down by a step into the next one. */
export interface LedTone {
  readonly tone: PitchClass
  /** Semitones down. */
  readonly down: number
}

/** Degrees in semitones over a root. */
const FOURTH = 5
const SEVENTHS = [10, 11]
const THIRDS = [3, 4]

/**
 * What the ear waits for between two chords: a suspended fourth goes down to the third of its own chord, and a seventh to the third
 * of the chord a fourth above. Common practice (handbooks of harmony agree; from memory).
 * @example ledTone(Asus4, A) // { tone: 2, down: 1 }: D goes to C sharp
 * @example ledTone(G7, C) // { tone: 5, down: 1 }: F goes to E
 */
export function ledTone(from: ChordReading, to: ChordReading): LedTone | undefined {
  const third = THIRDS.find((t) => to.intervals.includes(t))
  if (third === undefined) return undefined
  const root = pitchClass(from.root)
  const up = mod12(pitchClass(to.root) - root)
  const suspended = from.intervals.includes(FOURTH) && !THIRDS.some((t) => from.intervals.includes(t))
  if (up === 0) return suspended ? { tone: mod12(root + FOURTH), down: FOURTH - third } : undefined
  const seventh = SEVENTHS.find((s) => from.intervals.includes(s))
  if (up !== FOURTH || seventh === undefined) return undefined
  return { tone: mod12(root + seventh), down: seventh - FOURTH - third }
}
