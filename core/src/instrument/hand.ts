/** The fretting fingers: 1 index to 4 little finger, T thumb over the neck, 0 none. */
export type LeftFinger = 0 | 1 | 2 | 3 | 4 | 'T'

/** The picking fingers: p thumb, i index, m middle, a ring. */
export type RightFinger = 'p' | 'i' | 'm' | 'a'

/** Strokes of a flat pick. */
export type Stroke = 'down' | 'up'

/** How a note is sounded: by a finger, by a stroke of the pick, or by the fretting hand alone (`none`). */
export type PickingSign = RightFinger | Stroke | 'none'
export const PICKING_SIGNS: readonly PickingSign[] = ['p', 'i', 'm', 'a', 'down', 'up', 'none']

/** Widest reach in mm by finger pair. A finger pair is written low-high, as in `'14'`. */
export type HandSpans = Readonly<Record<'12' | '13' | '14' | '23' | '24' | '34', number>>

/**
 * Spans of an adult hand, along and across, that exclude none of the hand-made positions of the open chord data set
 * whose fingers rise with the frets (measured on a 648 mm scale, from the nearest string of a barre).
 */
export const ADULT_SPANS: HandSpans = { '12': 78, '13': 102, '14': 108, '23': 75, '24': 102, '34': 75 }

/** What a hand may do besides reaching. */
export interface Techniques {
  /** A finger across several strings. */
  readonly barre: boolean
  readonly littleFinger: boolean
  /** How many fretting fingers may be used at most, from the index on; absent for all. */
  readonly fingers?: number
  /** The thumb over the neck on the lowest two strings. */
  readonly thumbOver: boolean
}

/**
 * How the strings are sounded: a finger for each treble string, thumb and index alone, a flat pick, or pick and
 * fingers together.
 */
export const PICKING_SCHOOLS = ['fingerPerString', 'thumbAndIndex', 'flatPick', 'pickAndFingers'] as const
export type PickingSchool = (typeof PICKING_SCHOOLS)[number]

export interface Player {
  readonly name: string
  readonly spans: HandSpans
  readonly techniques: Techniques
  readonly school: PickingSchool
  readonly handedness: 'right' | 'left'
}

export const DEFAULT_PLAYER: Player = {
  name: '',
  spans: ADULT_SPANS,
  techniques: { barre: true, littleFinger: true, thumbOver: false },
  school: 'fingerPerString',
  handedness: 'right',
}

/** The fretting fingers that a hand may use, the index first. */
export function fingersOf({ littleFinger, fingers = 4 }: Techniques): number[] {
  return [1, 2, 3, 4].slice(0, Math.min(fingers, littleFinger ? 4 : 3))
}

/** Share of a hand's spans that a kind grip keeps within. Common practice, no source. */
const KIND_SHARE = 0.85

/** The spans that a hand reaches without being stretched. */
export function kindSpans(spans: HandSpans): HandSpans {
  const pairs = Object.entries(spans) as [keyof HandSpans, number][]
  return Object.fromEntries(pairs.map(([pair, mm]) => [pair, mm * KIND_SHARE])) as HandSpans
}

/** The widest reach of a pair of fingers in mm; the order of the two does not matter. */
export function spanOf(spans: HandSpans, a: number, b: number): number {
  const pair = a < b ? `${a}${b}` : `${b}${a}`
  return spans[pair as keyof HandSpans]
}
