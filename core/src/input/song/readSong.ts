import type { DefinedShape } from './definedShape.ts'
import type { PartKind } from '../../document/partKind.ts'
import type { Key } from '../../music/pitch/key.ts'
import type { Metre } from '../../music/time/metre.ts'
import type { Problem } from '../problem.ts'

/** A chord as written over or inside a line. */
export interface WrittenChord {
  /** Letters of the line before it. */
  readonly at: number
  readonly symbol: string
  /** Where bar lines say it: which bar of the line, and how far into it, from 0 up to 1. */
  readonly bar?: number
  readonly share?: number
}

/** A repeat that bar lines of a grid write: bars of the line, both included. */
export interface WrittenRepeat {
  readonly from: number
  readonly to: number
  /** How often it is played in all. */
  readonly times: number
}

/** A line of a song as written. */
export interface WrittenLine {
  /** *sung*: words, or none where it is played alone. *remark*: kept, and not played. */
  readonly kind: 'sung' | 'remark'
  readonly text: string
  readonly chords: readonly WrittenChord[]
  /** Bars, where bar lines say how many. */
  readonly bars?: number
  /** True where these bars are a guess that was kept. */
  readonly guessed?: true
  readonly repeats?: readonly WrittenRepeat[]
  /** How often the line is played in all. */
  readonly times: number
  readonly singer?: string
  /** The line of another part whose chords it takes: they are not written over it, and fall on the same beats. */
  readonly like?: WrittenLine
  /** In the text, from 1. */
  readonly line: number
}

/** A part of a song: verse, chorus. */
export interface WrittenPart {
  readonly kind: PartKind
  /** As written; empty where nothing names it. */
  readonly name: string
  readonly lines: readonly WrittenLine[]
  readonly times: number
  /** True for a bare heading that calls for a part which stands elsewhere. */
  readonly recalled?: true
  readonly line: number
}

/** A song as read: words and chords part by part, and what the text says of itself. */
export interface ReadSong {
  readonly title?: string
  readonly subtitle?: string
  readonly artist?: string
  readonly key?: Key
  /** Quarter notes a minute. */
  readonly bpm?: number
  readonly metre?: Metre
  readonly capo: number
  readonly tuning?: string
  readonly strum?: string
  readonly parts: readonly WrittenPart[]
  /** Chord shapes that it brings along. */
  readonly shapes: readonly DefinedShape[]
  readonly problems: readonly Problem[]
}
