import type { Metre } from '@velvet-porch/core/music'
import { QUARTER, hertz, measureLength } from '@velvet-porch/core/music'
import type { MeantNote, Performance } from '@velvet-porch/core/output/sound'

/** Metres that a melody can be played in. */
export const METRES: Readonly<Record<string, Metre>> = {
  '4/4': { num: 4, den: 4 },
  '3/4': { num: 3, den: 4 },
  '2/4': { num: 2, den: 4 },
  '6/8': { num: 6, den: 8 },
}

/** The shortest notes, in ticks. */
export const GRIDS = { quarter: QUARTER, eighth: QUARTER / 2, third: QUARTER / 3, sixteenth: QUARTER / 4 }
export type GridName = keyof typeof GRIDS

/** Measures that are clicked at most: whoever has played ends it before. */
const MOST_MEASURES = 64

/** Clicks in a metre, at a tempo of quarter notes. */
export function clicksIn(metre: Metre, bpm: number): Performance {
  const length = measureLength(metre)
  const beat = metre.den === 8 && metre.num % 3 === 0 ? 1.5 * QUARTER : (4 * QUARTER) / metre.den
  const clicks = Array.from({ length: (MOST_MEASURES * length) / beat }, (_, i) => ({
    at: i * beat,
    strong: (i * beat) % length === 0,
    number: ((i * beat) % length) / beat + 1,
  }))
  return {
    notes: [],
    clicks,
    tempos: [{ at: 0, bpm }],
    length: MOST_MEASURES * length,
    beat,
    countIn: Math.max(2, Math.round(length / beat)),
  }
}

/** What the simulated string plays: semitones, and lengths in steps of the grid. */
const PHRASE: readonly (readonly [midi: number, steps: number])[] = [
  [55, 2],
  [59, 1],
  [62, 1],
  [64, 2],
  [62, 2],
  [60, 1],
  [59, 1],
  [57, 2],
  [55, 4],
]

/** A phrase that the simulated string plays in the place of somebody before the microphone. */
export function simulatedPhrase(grid: number, bpm: number): readonly MeantNote[] {
  let at = 0
  return PHRASE.map(([midi, steps]) => {
    const seconds = (at * 60) / (bpm * QUARTER)
    const length = steps * grid
    at += length
    return { seconds, string: 2, hertz: hertz(midi), rings: (length * 60) / (bpm * QUARTER) }
  })
}
