/** The fretting fingers: 1 index to 4 little finger, T thumb over the neck, 0 none. */
export type LeftFinger = 0 | 1 | 2 | 3 | 4 | 'T'

/** The picking fingers: p thumb, i index, m middle, a ring. */
export type RightFinger = 'p' | 'i' | 'm' | 'a'

/** Widest reach in mm by finger pair. A finger pair is written low-high, as in `'14'`. */
export type HandSpans = Readonly<Record<'12' | '13' | '14' | '23' | '24' | '34', number>>

/**
 * Spans of an adult hand that exclude none of 2,069 hand-made chord positions (the open chord data set,
 * measured on a 648 mm scale).
 */
export const ADULT_SPANS: HandSpans = { '12': 72, '13': 100, '14': 108, '23': 68, '24': 100, '34': 68 }

export interface Player {
  readonly name: string
  readonly spans: HandSpans
  readonly handedness: 'right' | 'left'
}

export const DEFAULT_PLAYER: Player = { name: '', spans: ADULT_SPANS, handedness: 'right' }

/** The widest reach of a pair of fingers in mm; the order of the two does not matter. */
export function spanOf(spans: HandSpans, a: number, b: number): number {
  const pair = a < b ? `${a}${b}` : `${b}${a}`
  return spans[pair as keyof HandSpans]
}
