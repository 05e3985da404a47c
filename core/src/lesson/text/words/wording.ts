import type { Finger } from '../../../hand/moves/placedFinger.ts'
import type { Attack } from '../../../document/tab.ts'
import type { ExpressionWord } from '../../../document/expression.ts'
import type { Mark } from '../../../document/marks.ts'
import type { PickingSign } from '../../../instrument/hand.ts'

/** How lesson steps are said in one language: templates, whose braces are filled. None holds a full stop. */
export interface Wording {
  readonly measure: string
  /** Title of a measure that is played so on one pass only; its times in words, from the first. */
  readonly measureOnPass: string
  readonly times: readonly string[]
  /** Title of a measure that is not counted. */
  readonly pickup: string
  /** A line of the script: when, and what is done. */
  readonly line: string
  /** Strings that nobody plays in a measure. */
  readonly silent: { readonly one: string; readonly more: string }
  readonly count: { readonly beat: string; readonly syllable: string; readonly share: string }
  readonly fingers: Readonly<Record<Finger, string>>
  /** What the little finger is called while it carries the bottleneck. */
  readonly bottleneck: string
  readonly picking: Readonly<Record<Exclude<PickingSign, 'none'>, string>>
  readonly hand: {
    readonly stays: string
    /** All fingers stay where they are. */
    readonly held: string
    /** A shape that is known by name and stays. */
    readonly holds: string
    /** A shape that is put down whole, with its fingers from the lowest string; and one to which some fingers go over. */
    readonly takes: string
    readonly changes: string
    /** Where a finger of a shape stands, alone or across strings. */
    readonly at: string
    readonly across: string
    readonly lifts: string
    readonly lands: string
    readonly barre: string
    readonly slides: string
    readonly slidesBarre: string
    readonly shift: string
    /** Fingers that are wanted in two places at once. */
    readonly conflict: string
    /** Fingers that are free and wanted next. */
    readonly prepare: string
    /** Fingers that would do as well. */
    readonly alternative: string
  }
  /** How a note is sounded; several plucked at once are said together. */
  readonly attack: Readonly<Record<Attack, string>>
  readonly together: string
  readonly place: {
    readonly open: string
    readonly fret: string
    readonly harmonic: string
    readonly artificial: string
    readonly by: string
    /** Stopped beside the fret, on the side of the nut or of the body. */
    readonly short: string
    readonly beyond: string
    readonly bent: string
    readonly noFinger: string
    /** What a place sounds. */
    readonly named: string
    /** Neighbouring strings, each as the hand holds it. */
    readonly strings: string
    readonly picked: string
    readonly marked: string
  }
  /** What stands between quick notes on one string, and one of them that need not be. */
  readonly then: string
  readonly optional: string
  /** Single notes in a row, on one string or under one position of the hand; other fingers than the last leave. */
  readonly row: {
    readonly string: string
    readonly position: string
    readonly item: string
    readonly open: string
    readonly fret: string
    readonly stringOpen: string
    readonly stringFret: string
  }
  readonly marks: Readonly<Record<Mark, string>>
  readonly ringing: string
  /** What notes are in the chord: degrees from the lowest string; names of intervals from the unison to the octave. */
  readonly harmony: {
    readonly over: string
    readonly to: string
    readonly flat: string
    readonly sharp: string
    readonly intervals: readonly string[]
  }
  /** How long notes last. */
  readonly lengths: { readonly beats: string; readonly of: string }
  /** How it is played until something else is said. */
  readonly from: string
  readonly expression: Readonly<Record<ExpressionWord, string>>
  /** The teacher's words to the student at a note. */
  readonly remark: string
}

/** What stands between the notes of a row. */
export const ROW_SIGN = ' – '
