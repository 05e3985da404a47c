import type { PickingSchool } from '../../instrument/hand.ts'

/** What a picking hand cannot do at once: strings skipped inside one stroke, and notes beyond its fingers. */
export interface PickingStrain {
  readonly gaps: number
  readonly tooMany: number
}

/**
 * How far strings struck together go beyond a school: four fingers take four strings; thumb and index take a bass and
 * neighbours for the index to brush; a flat pick takes neighbours; pick and fingers take three.
 * @param strings struck together, any order
 * @example pickingStrain('flatPick', [5, 2]) // { gaps: 2, tooMany: 0 }
 */
export function pickingStrain(school: PickingSchool, strings: readonly number[]): PickingStrain {
  const low = [...strings].sort((a, b) => b - a)
  if (school === 'flatPick') return { gaps: gapsIn(low), tooMany: 0 }
  if (school === 'thumbAndIndex') return { gaps: gapsIn(low.slice(1)), tooMany: Math.max(0, low.length - 4) }
  return { gaps: 0, tooMany: Math.max(0, low.length - (school === 'pickAndFingers' ? 3 : 4)) }
}

function gapsIn(low: readonly number[]): number {
  let gaps = 0
  for (let i = 1; i < low.length; i++) gaps += low[i - 1]! - low[i]! - 1
  return gaps
}

/**
 * Silent strings between the outer ones of a shape: what one stroke across would have to skip.
 * @param frets by string, string 1 first
 */
export const silentWithin = (frets: readonly (number | null)[]): number =>
  gapsIn(frets.flatMap((fret, i) => (fret === null ? [] : [i + 1])).reverse())
