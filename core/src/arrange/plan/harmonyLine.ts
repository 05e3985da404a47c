import { ticksAt, type Timeline } from '../../document/form/timeline.ts'
import { transposeChord, type ChordReading } from '../../music/harmony/chordSymbol.ts'
import type { TuneDoc } from '../../document/tune.ts'
import { transposeKey } from '../../music/pitch/key.ts'
import { firstAtOrAfter } from '../../music/time/firstAtOrAfter.ts'
import type { Ticks } from '../../music/time/ticks.ts'

/** A stretch of one harmony. `sounding` and `shape` are absent where no chord sounds. */
export interface HarmonySegment {
  readonly start: Ticks
  readonly end: Ticks
  readonly symbol: string
  readonly sounding?: ChordReading
  /** The chord as the hand behind the capo calls it. */
  readonly shape?: ChordReading
}

/** The harmony of the written time line, as it sounds and as the capo player calls it. */
export function harmonyLine(
  tune: TuneDoc,
  timeline: Timeline,
  capo: number,
  transposed: number,
): HarmonySegment[] {
  const marks = tune.chords
    .map((c) => ({ mark: c, start: ticksAt(timeline, c.pos) }))
    .sort((a, b) => a.start - b.start)
  const key = tune.measures[0]!.key
  const soundingFlats = transposeKey(key, transposed).fifths < 0
  const shapeFlats = transposeKey(key, transposed - capo).fifths < 0
  return marks.flatMap(({ mark, start }, i) => {
    const end = marks[i + 1]?.start ?? timeline.length
    if (end <= start) return []
    if (!mark.parsed) return [{ start, end, symbol: mark.symbol }]
    const sounding = transposeChord(mark.parsed, transposed, soundingFlats)
    return [{ start, end, symbol: mark.symbol, sounding, shape: transposeChord(sounding, -capo, shapeFlats) }]
  })
}

/** Index of the harmony that sounds at a time; −1 where none does. */
export function segmentAt(harmony: readonly HarmonySegment[], at: Ticks): number {
  const next = firstAtOrAfter(harmony, at + 1)
  return next > 0 && harmony[next - 1]!.end > at ? next - 1 : -1
}
