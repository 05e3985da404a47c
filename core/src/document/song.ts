import type { Id } from './ids.ts'

/** A line of a song: its words over its measures, or a remark that stands beneath a measure. */
export interface SongLine {
  readonly id: Id
  readonly kind: 'sung' | 'remark'
  /** Empty where the line is played alone. */
  readonly text: string
  /**
   * Letters before each of its changes of chord, in the order of the chords of its measures; absent where no chords are
   * written over its words.
   */
  readonly changes?: readonly number[]
  /** Its measures, one after the other; a remark has the one that it follows. */
  readonly measures: readonly Id[]
  readonly singer?: string
}

/** The words of a tune that has them without notes, line by line. */
export interface Song {
  readonly lines: readonly SongLine[]
}
