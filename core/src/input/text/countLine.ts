import { beatLength, isCompound, type Metre } from '../../music/time/metre.ts'
import type { Ticks } from '../../music/time/ticks.ts'

/** A count under a tab with its column: "1", "&", "e", "a". */
const COUNT = /\d{1,2}|&|\+|and|[ea]/g

/** True for a line of counts and nothing else: `1 & 2 & 3 e & a 4`. */
export function isCountLine(line: string): boolean {
  const words = line
    .trim()
    .split(/[\s|.-]+/)
    .filter(Boolean)
  return (
    words.length >= 2 &&
    words.every((w) => /^(?:\d{1,2}|&|\+|and|[ea])+$/.test(w)) &&
    words.some((w) => /^[1-9]$/.test(w)) &&
    words.every((w) => !/^\d+$/.test(w) || Number(w) <= 16) &&
    /(?:^|\s)1(?:\s|$|&)/.test(line)
  )
}

/** Shares of a beat before each count between two of them. */
const BETWEEN: Readonly<Record<string, number>> = { e: 1 / 4, '&': 1 / 2, '+': 1 / 2, and: 1 / 2, a: 3 / 4 }

/** In a beat of three, two counts stand between. */
const IN_THREES: Readonly<Record<string, number>> = { '&': 1 / 3, '+': 1 / 3, and: 1 / 3, a: 2 / 3 }

/** The counts of a stretch of a line with their times in the measure; undefined where they do not rise. */
export function countsIn(
  line: string,
  from: number,
  to: number,
  metre: Metre,
): readonly (readonly [column: number, tick: Ticks])[] | undefined {
  const beat = beatLength(metre)
  const compound = isCompound(metre)
  const counts: [number, Ticks][] = []
  let now = 0
  for (const m of line.slice(from, to).matchAll(COUNT)) {
    const number = Number(m[0])
    // "1 2 3 4 5 6" in 6/8 counts the thirds of its beats.
    const unit = compound ? beat / 3 : beat
    if (Number.isInteger(number) && m[0] !== '') now = (number - 1) * unit
    const share = (compound ? IN_THREES : BETWEEN)[m[0]] ?? 0
    const tick = Math.round(now + share * (compound ? unit : beat))
    if (tick <= (counts.at(-1)?.[1] ?? -1)) return undefined
    counts.push([from + m.index, tick])
  }
  return counts.length > 0 ? counts : undefined
}
