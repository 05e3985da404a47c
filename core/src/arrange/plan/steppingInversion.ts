import { bassPitchClass } from '../../music/harmony/chordSymbol.ts'
import { mod12, pitchClass, type PitchClass } from '../../music/pitch/pitch.ts'
import type { HarmonySegment } from './harmonyLine.ts'

/** Semitones of a step. */
const STEP = 2

const THIRDS = [3, 4] as const

/** From one pitch class to another the short way, up or down. */
const wayTo = (from: PitchClass, to: PitchClass): number => {
  const up = mod12(to - from)
  return up > 6 ? up - 12 : up
}

/**
 * The third of a chord where it takes the bass by step from the chord before to the one after, as in G – D/F# – Em and
 * C – G/B – Am; undefined where it does not, where the root itself steps, or the lead sheet names a bass. Common practice, no
 * source.
 */
export function steppingInversion(
  harmony: readonly HarmonySegment[],
  segment: number,
): PitchClass | undefined {
  const [before, here, after] = [-1, 0, 1].map((k) => harmony[segment + k])
  if (!before?.sounding || !here?.sounding || !after?.sounding || here.sounding.bass) return undefined
  if (before.end !== here.start || here.end !== after.start) return undefined
  const { root: name, intervals } = here.sounding
  const third = THIRDS.find((t) => intervals.includes(t))
  if (third === undefined) return undefined
  const [from, to] = [bassPitchClass(before.sounding), bassPitchClass(after.sounding)]
  const root = pitchClass(name)
  const stepsBy = (pc: PitchClass) => [wayTo(from, pc), wayTo(pc, to)] as const
  const isStep = (by: number) => by !== 0 && Math.abs(by) <= STEP
  const bass = mod12(root + third)
  const [into, on] = stepsBy(bass)
  const isLine = isStep(into) && isStep(on) && Math.sign(into) === Math.sign(on)
  return isLine && !stepsBy(root).every(isStep) ? bass : undefined
}
