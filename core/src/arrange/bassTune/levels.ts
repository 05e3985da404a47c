import type { Level } from '../../document/style.ts'

/** What a level plays besides a tune in the bass. */
export interface BassTuneRules {
  /** Beats between two notes of the tune, from which on the beats between them are brushed. */
  readonly gap: number
  /** Where the arm comes back up after a beat: nowhere, after a beat of the tune alone, after each. */
  readonly up: 'never' | 'afterNotes' | 'always'
  /** Notes of the tune that are hammered on from their open string: none, on one and where the chord comes, on every beat. */
  readonly hammers: 'never' | 'changes' | 'beats'
  /**
   * Notes that are struck with their chord in a measure that leaves no room for a brush: none, on one, on strong beats (where one
   * alone is strong on the last too), on every beat.
   */
  readonly crowded: 'never' | 'one' | 'strong' | 'beats'
  /** True where the note that a chord comes with is struck with it, and long notes have basses of the chord beneath them. */
  readonly full: boolean
}

/** Each level plays what the one below it does, or more of it. Common practice, no source. */
export const BASS_TUNE_LEVELS: Readonly<Record<Level, BassTuneRules>> = {
  1: { gap: 3, up: 'never', hammers: 'never', crowded: 'never', full: false },
  2: { gap: 2, up: 'never', hammers: 'never', crowded: 'never', full: false },
  3: { gap: 2, up: 'afterNotes', hammers: 'never', crowded: 'one', full: false },
  4: { gap: 2, up: 'always', hammers: 'changes', crowded: 'strong', full: false },
  5: { gap: 2, up: 'always', hammers: 'beats', crowded: 'beats', full: true },
}
