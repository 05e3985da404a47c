import { isSolo, type SoloStyle } from '../../document/style.ts'
import type { OrnamentPage } from './ornamentPage.ts'

/**
 * What a style's players do with a note here and there: hammer the third of a chord on from the open string where the chord comes;
 * slide into a long note of the tune from below.
 */
export type Idiom = 'hammeredThird' | 'slideIn'

/** Common practice, no source. They come with the density at which slurs do. */
export const IDIOMS: Readonly<Record<SoloStyle, readonly Idiom[]>> = {
  'melody-bass': ['hammeredThird', 'slideIn'],
  'alternating-bass': ['hammeredThird', 'slideIn'],
  arpeggio: ['hammeredThird'],
  'chord-melody': [],
  drone: ['slideIn'],
  'cross-string': [],
  'double-stops': [],
  'flatpicked-lead': ['hammeredThird', 'slideIn'],
}

/** The density of ornaments from which a hand adds what the source has not. */
export const OWN_DENSITY = 2

/** True where the section of a note has an idiom, by its style and its density of ornaments. */
export function hasIdiom(page: OrnamentPage, note: number, idiom: Idiom): boolean {
  const style = page.regionOf(note)?.style
  return (
    style !== undefined &&
    isSolo(style) &&
    IDIOMS[style].includes(idiom) &&
    page.densityAt(note) >= OWN_DENSITY
  )
}
