import type { TabNote } from '../../document/tab.ts'
import type { LeftFinger } from '../../instrument/hand.ts'

/**
 * A finger for a short note before another on its string: as many fingers from the note's own as the notes lie frets
 * apart, as far as the hand goes.
 */
export function graceFinger({ place, left }: Pick<TabNote, 'place' | 'left'>, fret: number): LeftFinger {
  if (fret === 0) return 0
  const own = typeof left === 'number' && left > 0 ? left : fret < place.fret ? 2 : 1
  return Math.min(4, Math.max(1, own + fret - place.fret)) as LeftFinger
}

/** True where a note's finger leaves one for each short note before it. */
export function leavesRoomForGraces(
  { place, graces = [] }: Pick<TabNote, 'place' | 'graces'>,
  left: LeftFinger,
): boolean {
  return graces.every(
    (g) => g.place.fret === 0 || place.fret === 0 || (g.place.fret < place.fret ? left !== 1 : left !== 4),
  )
}
