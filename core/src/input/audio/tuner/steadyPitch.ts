import { median } from 'es-toolkit'
import { centsBetween } from '../peaks.ts'

/** Readings that are looked at together, and how far they may lie apart (cents) and still be one string. */
const READINGS = 5
const APART = 60

/** The pitches that were heard of one string, the latest last. */
export type PitchesHeard = readonly number[]

/** With one more reading; another string begins anew. */
export function withPitch(heard: PitchesHeard, hertz: number): PitchesHeard {
  const same = heard.filter((h) => Math.abs(centsBetween(h, hertz)) < APART)
  const goesOn = same.length * 2 >= heard.length
  return [...(goesOn ? heard : same), hertz].slice(-READINGS)
}

/** What a needle shows: the middle of the readings, so that one that is wrong does not move it. */
export const steadyPitch = (heard: PitchesHeard): number | undefined =>
  heard.length === 0 ? undefined : median([...heard])
