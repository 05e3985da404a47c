import { commonDivisor } from '../../music/time/commonDivisor.ts'
import { QUARTER, WHOLE, type Ticks } from '../../music/time/ticks.ts'
import { plainValues } from './plainValues.ts'

/** A stretch of a measure whose time is parted in another number than it is written: `actual` notes in the time of `normal`. */
export interface TupletSpan {
  readonly from: Ticks
  readonly to: Ticks
  readonly actual: number
  readonly normal: number
}

/** A part of a note or rest as it is written; parts of one note are tied. Ticks from the start of the measure. */
export interface WrittenPart {
  readonly tick: Ticks
  readonly ticks: Ticks
  readonly base: number
  readonly dots: number
  readonly tuplet?: TupletSpan
}

/** The shortest value that is written plainly. */
const SHORTEST: Ticks = WHOLE / 64

/**
 * Where a voice needs tuplets: each quarter of the measure in which some note begins or ends beside the grid of plain values, parted in
 * the smallest number that all of them stand on.
 * @param moments ticks of the measure at which something begins or ends
 * @param origin tick at which a beat falls: other than 0 in a pickup
 * @param stated tuplets that the source states; a quarter that one of them touches has no other
 */
export function tupletSpans(
  moments: readonly Ticks[],
  length: Ticks,
  origin: Ticks,
  stated: readonly TupletSpan[] = [],
): TupletSpan[] {
  const spans = [...stated]
  const inside = (at: Ticks) => stated.some((s) => s.from <= at && at <= s.to)
  const first = (origin % QUARTER) - (origin % QUARTER > 0 ? QUARTER : 0)
  const odd = new Map<Ticks, number>()
  for (const at of moments) {
    if ((at - origin) % SHORTEST === 0 || inside(at)) continue
    const beat = first + Math.floor((at - first) / QUARTER) * QUARTER
    odd.set(beat, leastMultiple(odd.get(beat) ?? 1, oddPart(at - beat)))
  }
  for (const [beat, actual] of odd) {
    const to = Math.min(beat + QUARTER, length)
    const own = { from: Math.max(0, beat), to, actual, normal: 2 ** Math.floor(Math.log2(actual)) }
    if (!stated.some((s) => s.from < to && own.from < s.to)) spans.push(own)
  }
  return spans.sort((a, b) => a.from - b.from)
}

/** The odd number in which a quarter has to be parted for a moment in it to stand on a part, or a half, quarter … of one. */
function oddPart(at: Ticks): number {
  let parts = QUARTER / commonDivisor(QUARTER, at)
  while (parts % 2 === 0) parts /= 2
  return parts
}

const leastMultiple = (a: number, b: number): number => (a * b) / commonDivisor(a, b)

/**
 * A stretch of a measure as written values, parted where tuplets begin and end.
 * @example writtenParts(0, 3360, [{ from: 0, to: 10080, actual: 3, normal: 2 }]) // an eighth of a triplet
 */
export function writtenParts(from: Ticks, to: Ticks, spans: readonly TupletSpan[]): WrittenPart[] {
  const parts: WrittenPart[] = []
  for (let at = from; at < to;) {
    const now = at
    const own = spans.find((s) => s.from <= now && now < s.to)
    const next = spans.find((s) => s.from > now)
    const end = Math.min(to, own?.to ?? next?.from ?? to)
    const isWhole = own !== undefined && own.from === now && own.to === end
    const tuplet = isWhole ? undefined : own
    const [actual, normal] = tuplet ? [tuplet.actual, tuplet.normal] : [1, 1]
    for (const v of plainValues(((end - now) * actual) / normal)) {
      const ticks = (v.ticks * normal) / actual
      parts.push({ tick: at, ticks, base: v.base, dots: v.dots, ...(tuplet ? { tuplet } : {}) })
      at += ticks
    }
    // Parts of odd tuplets add up to what they began with.
    at = end
  }
  return parts
}
