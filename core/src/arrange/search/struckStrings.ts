import { present } from '../../invariant.ts'
import type { Draft } from './draft.ts'
import type { Requirement } from './requirement.ts'

/**
 * The strings of a held shape that are struck as a chord, the lowest first: under a melody the voices of the voicing and the melody's own.
 * Where no tune is on top a hand takes the bass and the highest strings, as many as it has voices for; one stroke takes
 * neighbours, from the bass up.
 */
export function struckStrings(requirement: Requirement, { heldShape, melody }: Draft): number[] {
  const { frets } = requirement.heldShapes[heldShape]!
  const sounding = frets.flatMap((fret, i) => (fret === null ? [] : [i + 1])).reverse()
  const { voices } = present(requirement.inner)
  if (sounding.length <= voices) return sounding
  const { string: top } = melody ?? {}
  if (top !== undefined) {
    const below = sounding.filter((s) => s !== top).slice(0, voices - 1)
    return [...below, top].sort((a, b) => b - a)
  }
  return requirement.picking === 'flatPick'
    ? sounding.slice(0, voices)
    : [sounding[0]!, ...sounding.slice(sounding.length - voices + 1)]
}
