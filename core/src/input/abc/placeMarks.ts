import type { LeftFinger } from '../../instrument/hand.ts'

/** Where a note is to be played, as an annotation says it. */
export interface GivenPlace {
  readonly string: number
  readonly fret: number
  readonly left?: Exclude<LeftFinger, 0>
}

const PLACE = /^(\d)\.(\d{1,2})(?::([1-4T]))?$/

/**
 * Places in an annotation over or under a note: string and fret, with a finger behind a colon, joined by `+` for a chord;
 * undefined where it says something else.
 * @example readPlaceMark('5.3:3+4.2:2') // [{ string: 5, fret: 3, left: 3 }, { string: 4, fret: 2, left: 2 }]
 */
export function readPlaceMark(text: string): readonly GivenPlace[] | undefined {
  const places = text
    .trim()
    .split('+')
    .map((word): GivenPlace | undefined => {
      const [, string, fret, finger] = PLACE.exec(word.trim()) ?? []
      if (string === undefined || fret === undefined) return undefined
      const left =
        finger === undefined ? undefined : finger === 'T' ? ('T' as const) : (Number(finger) as 1 | 2 | 3 | 4)
      return { string: Number(string), fret: Number(fret), ...(left === undefined ? {} : { left }) }
    })
  return places.every((p) => p !== undefined) ? places : undefined
}
