/** Styles in which the instrument plays the melody. */
export const SOLO_STYLES = [
  'melody-bass',
  'alternating-bass',
  'arpeggio',
  'chord-melody',
  'drone',
  'cross-string',
  'double-stops',
  'flatpicked-lead',
] as const
export type SoloStyle = (typeof SOLO_STYLES)[number]

/** Styles that accompany: somebody sings or plays the melody. */
export const ACCOMPANIMENTS = ['picking', 'bass-brush', 'strum', 'shuffle'] as const
export type Accompaniment = (typeof ACCOMPANIMENTS)[number]

/** Styles that play the melody in ways of their own: on the low strings under brushes, and by a bottleneck. */
export const OTHER_TUNE_STYLES = ['bass-tune', 'bottleneck'] as const

/** Styles: the melody played by the fingers, in a way of its own, or accompanied. */
export const STYLES = [...SOLO_STYLES, ...OTHER_TUNE_STYLES, ...ACCOMPANIMENTS] as const
export type Style = (typeof STYLES)[number]

export const isSolo = (style: Style): style is SoloStyle => (SOLO_STYLES as readonly Style[]).includes(style)

export const isAccompaniment = (style: Style): style is Accompaniment =>
  (ACCOMPANIMENTS as readonly Style[]).includes(style)

export const LEVELS = [1, 2, 3, 4, 5] as const
export type Level = (typeof LEVELS)[number]

/**
 * What an easier version does without: slides (hammered on and pulled off instead); grips near the end of the hand's
 * reach; chord tones between the melody's notes; basses between the chords' first; whole chords under the melody, of
 * which one note stays; fingers laid across strings.
 */
export const OMISSIONS = ['slides', 'stretch', 'fills', 'bass', 'chords', 'barre'] as const
export type Omission = (typeof OMISSIONS)[number]

/**
 * Density of ornaments: none; those of the source (grace notes, rolls, slurs); slurs where line, tempo and hand allow;
 * as many as they allow.
 */
export const ORNAMENTS = [0, 1, 2, 3] as const
export type Ornament = (typeof ORNAMENTS)[number]

/** Where no density is chosen: the source's own ornaments, and from level 4 on slurs where line, tempo and hand allow. */
export const usualOrnament = (level: Level): Ornament => (level >= 4 ? 2 : 1)
