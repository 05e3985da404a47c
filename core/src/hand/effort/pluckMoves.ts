import type { TabNote } from '../../document/tab.ts'
import { PLUCK_S } from './effortWeights.ts'

/** Notes that are struck together. */
export type Onset = readonly Pick<TabNote, 'place' | 'right' | 'attack'>[]

const isStroke = (sign: string) => sign === 'down' || sign === 'up'

/** Seconds that the picking hand needs between two onsets. */
export function pluckSeconds(before: Onset, after: Onset): number {
  let needed = 0
  for (const b of after) {
    for (const a of before) {
      if (isStroke(a.right) && isStroke(b.right)) {
        const across = Math.abs(a.place.string - b.place.string)
        const base = a.right === b.right ? PLUCK_S.sameStroke : PLUCK_S.stroke
        needed = Math.max(needed, base + PLUCK_S.crossing * across)
      } else if (a.right !== b.right) needed = Math.max(needed, PLUCK_S.others)
      else needed = Math.max(needed, a.right === 'p' ? PLUCK_S.thumb : PLUCK_S.finger)
    }
  }
  return needed
}

/** How much the picking hand has to do for an onset: each note, and more for strings skipped inside one stroke. */
export function pluckLoad(onset: Onset): number {
  const signs = new Set(onset.map((n) => n.right))
  const trembling = onset.some((n) => n.attack === 'tremolo') ? 2 : 0
  return signs.size + 0.3 * (onset.length - signs.size) + trembling
}
