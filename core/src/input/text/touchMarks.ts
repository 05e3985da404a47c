import { isMarkLine } from './linesAbove.ts'
import type { ReadSign } from './readTab.ts'

/** A stretch of columns over which a line says how the strings are touched. */
export interface TouchMark {
  readonly touch: 'palm' | 'letRing'
  readonly from: number
  readonly to: number
}

/** `PM----|`, `P.M. - - -`, `let ring---|`: the word, and the dashes that say how far it goes. */
const MARKS = /(?<palm>P\.?\s?M\.?|palm mute)|(?<ring>let ring)/gi
const DASHES = /^[\s.]*(?:[-–—_~][-–—_~.\s]*\|?|\|)/

/** The stretches in the lines over a system. A word without dashes counts until the next word or the end of the line. */
export function touchMarks(over: readonly string[]): TouchMark[] {
  return over.filter(isMarkLine).flatMap((line) => {
    const found = [...line.matchAll(MARKS)]
    return found.map((m, i): TouchMark => {
      const behind = m.index + m[0].length
      const dashes = DASHES.exec(line.slice(behind))
      const to = dashes ? behind + dashes[0].trimEnd().length : (found[i + 1]?.index ?? Infinity)
      return { touch: m.groups?.['ring'] ? 'letRing' : 'palm', from: m.index, to }
    })
  })
}

/** Signs under the stretches: damped by the palm, or left to ring. */
export const withTouchMarks = (
  signs: readonly ReadSign[],
  marks: readonly TouchMark[],
): readonly ReadSign[] =>
  marks.length === 0
    ? signs
    : signs.map((sign) => {
        const own = sign.muted
          ? undefined
          : marks.find((m) => sign.column >= m.from - 1 && sign.column < m.to)
        return own ? { ...sign, [own.touch]: true } : sign
      })
