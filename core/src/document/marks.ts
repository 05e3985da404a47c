/** Signs of a tab note that are on or off. */
export const MARKS = [
  'letRing',
  'palmMute',
  'accent',
  'staccato',
  'fermata',
  'rolled',
  'vibrato',
  'damp',
  'slideFromBelow',
  'slideFromAbove',
  'slideOffUp',
  'slideOffDown',
  'optional',
] as const
export type Mark = (typeof MARKS)[number]

/** Marks of slides that come from no written note, or go to none. */
export const SLIDE_MARKS = ['slideFromBelow', 'slideFromAbove', 'slideOffUp', 'slideOffDown'] as const
export type SlideMark = (typeof SLIDE_MARKS)[number]

export const isSlideMark = (mark: Mark): mark is SlideMark => (SLIDE_MARKS as readonly Mark[]).includes(mark)

/** The slide mark that cannot stand beside another: a note is not come to, or left, both ways. */
export const OTHER_WAY: Readonly<Record<SlideMark, SlideMark>> = {
  slideFromBelow: 'slideFromAbove',
  slideFromAbove: 'slideFromBelow',
  slideOffUp: 'slideOffDown',
  slideOffDown: 'slideOffUp',
}

/** Frets over which the finger goes that slides to a note from none, or off it. Common practice, no source. */
const SLIDE_FRETS = 2

/**
 * Where the finger of a slide mark begins or ends, as a fret of the note's string: two frets away, or as far as the neck
 * goes; the note's own fret where there is no room.
 * @param last the last fret of the string
 * @example slideEnd('slideFromBelow', 7, 19) // 5
 */
export function slideEnd(mark: SlideMark, fret: number, last: number): number {
  const down = mark === 'slideFromBelow' || mark === 'slideOffDown'
  return Math.min(last, Math.max(1, fret + (down ? -SLIDE_FRETS : SLIDE_FRETS)))
}

/** True where a finger can slide so: a fretted note with neck on that side. */
export const hasSlideRoom = (
  mark: SlideMark,
  { fret, harmonic }: { readonly fret: number; readonly harmonic?: number | undefined },
  last: number,
): boolean => fret > 0 && harmonic === undefined && slideEnd(mark, fret, last) !== fret
