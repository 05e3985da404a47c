import type { Day } from './day.ts'
import type { Review } from './reviews.ts'

/** A piece of a tune that a student learns, with the minutes that it takes once. */
export interface PieceToPractise {
  readonly tuneId: string
  readonly piece: number
  readonly minutes: number
  /** Absent for a piece that was never practised. */
  readonly review?: Review
  /** True where its tempo does not rise any more. */
  readonly stuck: boolean
}

/** What is practised today, in this order. */
export interface PracticeItem {
  readonly tuneId: string
  readonly piece: number
  readonly why: 'due' | 'stuck' | 'new'
  readonly minutes: number
}

/** Reviews after which something new comes, as long as there is anything new. Common practice, no source. */
const REVIEWS_A_NEW = 2

/** Minutes under which nothing is begun. */
const LEAST_MINUTES = 2

/**
 * Today's list within the student's minutes: what is due, the nearest to being forgotten first, with something new after every
 * two. A piece that is stuck comes before other reviews. What has no room today is due tomorrow.
 * @param pieces in the order in which they are learnt
 * @param newADay most new pieces in a day
 */
export function practiceList(
  pieces: readonly PieceToPractise[],
  today: Day,
  minutes: number,
  newADay = 2,
): PracticeItem[] {
  const due = pieces
    .flatMap((p) => (p.review && p.review.due <= today ? [{ ...p, known: p.review.known }] : []))
    .sort((a, b) => Number(b.stuck) - Number(a.stuck) || a.known - b.known)
  const fresh = pieces.filter((p) => !p.review).slice(0, newADay)
  const items: PracticeItem[] = []
  let left = minutes
  const take = (p: PieceToPractise, why: PracticeItem['why']) => {
    const own = Math.min(Math.max(LEAST_MINUTES, Math.round(p.minutes)), left)
    if (own < LEAST_MINUTES) return
    items.push({ tuneId: p.tuneId, piece: p.piece, why, minutes: own })
    left -= own
  }
  let next = 0
  due.forEach((p, i) => {
    take(p, p.stuck ? 'stuck' : 'due')
    if ((i + 1) % REVIEWS_A_NEW === 0 && fresh[next]) take(fresh[next++]!, 'new')
  })
  for (; fresh[next]; next++) take(fresh[next]!, 'new')
  return items
}
