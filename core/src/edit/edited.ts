import type { MessageCode, MessageValues } from '../messages/message.ts'
import type { Mark } from '../document/marks.ts'
import type { Attack, Role } from '../document/tab.ts'
import type { Expression, ExpressionPart } from '../document/expression.ts'
import type { Id } from '../document/ids.ts'
import type { Jump, Pos, Provenance } from '../document/tune.ts'
import type { LeftFinger, PickingSign } from '../instrument/hand.ts'
import type { Key } from '../music/pitch/key.ts'
import type { Pitch } from '../music/pitch/pitch.ts'
import type { Ticks } from '../music/time/ticks.ts'
import type { Clip } from './clip.ts'
import type { Score } from '../document/score.ts'

/** Signs at a measure to which the form refers. */
export const FORM_SIGNS = ['segno', 'coda', 'fine'] as const
export type FormSign = (typeof FORM_SIGNS)[number]

/** One step of writing the melody: positions stand in the measure, lengths are ticks. */
export type MelodyEdit =
  | { readonly do: 'note'; readonly at: Pos; readonly ticks: Ticks; readonly pitch: Pitch }
  | { readonly do: 'rest'; readonly at: Pos; readonly ticks: Ticks }
  | { readonly do: 'value'; readonly at: Pos; readonly ticks: Ticks }
  | { readonly do: 'pitch'; readonly at: Pos; readonly pitch: Pitch }
  | { readonly do: 'rhythm'; readonly at: Pos; readonly lengths: readonly Ticks[] }
  | { readonly do: 'tie'; readonly at: Pos }
  | { readonly do: 'triplet'; readonly at: Pos }
  | { readonly do: 'chord'; readonly at: Pos; readonly symbol: string }
  | { readonly do: 'word'; readonly at: Pos; readonly text: string }

/** One step of shaping measures and form; `from` and `to` are indexes of measures, inclusive. */
export type MeasureEdit =
  | { readonly do: 'insert'; readonly before: number; readonly count: number }
  | { readonly do: 'delete'; readonly from: number; readonly to: number }
  | { readonly do: 'paste'; readonly before: number; readonly clip: Clip }
  | { readonly do: 'move'; readonly from: number; readonly to: number; readonly before: number }
  /** Measures played again behind themselves on other chords, as the hand calls them ("G | C D7"). */
  | { readonly do: 'figure'; readonly from: number; readonly to: number; readonly chords: string }
  | { readonly do: 'metre'; readonly from: number; readonly num: number; readonly den: number }
  | { readonly do: 'key'; readonly from: number; readonly key: Key }
  | { readonly do: 'tempo'; readonly at: Pos; readonly bpm: number | undefined }
  | { readonly do: 'pickup'; readonly ticks: Ticks }
  /** A measure that ends early; 0 makes it whole again. */
  | { readonly do: 'cut'; readonly measure: number; readonly ticks: Ticks }
  | { readonly do: 'section'; readonly measure: number; readonly name: string }
  | { readonly do: 'repeat'; readonly from: number; readonly to: number; readonly on: boolean }
  | { readonly do: 'ending'; readonly from: number; readonly to: number; readonly passes: readonly number[] }
  | { readonly do: 'sign'; readonly measure: number; readonly sign: FormSign; readonly on: boolean }
  | { readonly do: 'jump'; readonly measure: number; readonly jump: Jump | undefined }
  | { readonly do: 'provenance'; readonly from: number; readonly to: number; readonly provenance: Provenance }
  | { readonly do: 'writeOut' }

/** One step of shaping a song that has words and no notes; lines are named by their ids. */
export type SongEdit =
  | { readonly do: 'lineBars'; readonly line: Id; readonly bars: number }
  /** So many bars for every line whose bars are still a guess. */
  | { readonly do: 'everyLine'; readonly bars: number }
  /** Says that the bars are right as they stand. */
  | { readonly do: 'confirmBars' }
  /** A change of chord to another bar of its line (from 0), so far into it (0 up to 1). */
  | {
      readonly do: 'moveChange'
      readonly line: Id
      readonly chord: Id
      readonly bar: number
      readonly share: number
    }
  /** All changes of a line at once, in its bars: as somebody tapped them. */
  | {
      readonly do: 'lineTimes'
      readonly line: Id
      readonly bars: number
      readonly changes: readonly { readonly bar: number; readonly share: number }[]
    }
  /** The song as text; its chord names are those of the shapes behind the capo. */
  | { readonly do: 'songText'; readonly text: string; readonly capo: number }

/** States at a note how it and what follows is played; undefined takes the statement off. */
export type ExpressionEdit = {
  readonly [P in ExpressionPart]: {
    readonly do: 'express'
    readonly note: Id
    readonly part: P
    readonly value: Expression[P]
  }
}[ExpressionPart]

/** How a note is played, said of the note that another edit writes. */
export type NoteManner =
  | { readonly do: 'left'; readonly finger: LeftFinger }
  | { readonly do: 'right'; readonly sign: PickingSign }
  | { readonly do: 'mark'; readonly mark: Mark; readonly on: boolean }
  | { readonly do: 'attack'; readonly attack: Attack }
  | { readonly do: 'bend'; readonly semitones: number }
  | { readonly do: 'harmonic'; readonly kind: 'natural' | 'artificial' | 'none' }
  | { readonly do: 'offset'; readonly cents: number }

/** One step of writing the tab. */
export type TabEdit =
  | {
      readonly do: 'fret'
      readonly at: Pos
      readonly string: number
      readonly fret: number
      readonly ticks: Ticks
      readonly role: Role
      /** How the note is played, in this order. */
      readonly played?: readonly NoteManner[]
    }
  | { readonly do: 'erase'; readonly note: Id }
  | { readonly do: 'restring'; readonly note: Id; readonly string: number }
  | { readonly do: 'length'; readonly note: Id; readonly ticks: Ticks }
  /** Lets a note below the melody sound on over the bar line, or ends it there again. */
  | { readonly do: 'hold'; readonly note: Id }
  | { readonly do: 'left'; readonly note: Id; readonly finger: LeftFinger }
  | { readonly do: 'right'; readonly note: Id; readonly sign: PickingSign }
  | { readonly do: 'mark'; readonly note: Id; readonly mark: Mark; readonly on: boolean }
  | ExpressionEdit
  | { readonly do: 'remark'; readonly note: Id; readonly text: string }
  | { readonly do: 'attack'; readonly note: Id; readonly attack: Attack }
  | { readonly do: 'bend'; readonly note: Id; readonly semitones: number }
  | { readonly do: 'harmonic'; readonly note: Id; readonly kind: 'natural' | 'artificial' | 'none' }
  /** Stops a note under a bottleneck so many cents beside its fret. */
  | { readonly do: 'offset'; readonly note: Id; readonly cents: number }
  | { readonly do: 'grace'; readonly note: Id; readonly fret: number | undefined }
  | { readonly do: 'finger'; readonly from: number; readonly to: number }

/** The names of edits, by what they change. */
export const MELODY_EDITS = [
  'note',
  'rest',
  'value',
  'pitch',
  'rhythm',
  'tie',
  'triplet',
  'chord',
  'word',
] as const
export const MEASURE_EDITS = [
  'insert',
  'delete',
  'paste',
  'move',
  'figure',
  'metre',
  'key',
  'tempo',
  'pickup',
  'cut',
  'section',
  'repeat',
  'ending',
  'sign',
  'jump',
  'provenance',
  'writeOut',
] as const
export const SONG_EDITS = [
  'lineBars',
  'everyLine',
  'confirmBars',
  'moveChange',
  'lineTimes',
  'songText',
] as const
export const TAB_EDITS = [
  'fret',
  'erase',
  'restring',
  'length',
  'hold',
  'left',
  'right',
  'mark',
  'express',
  'remark',
  'attack',
  'bend',
  'harmonic',
  'offset',
  'grace',
  'finger',
] as const

/** Everything that can be written on the sheet by hand, as plain data. */
export type EditCommand = MelodyEdit | MeasureEdit | TabEdit | SongEdit

/** Why something cannot be written: its entry in the catalogue of words. */
export type RefusalReason = MessageCode<'editing'> extends `editing.${infer Reason}` ? Reason : never
/** The figures that go with a reason. */
export type RefusalValues<R extends RefusalReason> = MessageValues<`editing.${R}`>

/** What cannot be written, with the figures that say why, and the nearest thing that can. */
export interface EditRefusal {
  readonly reason: RefusalReason
  readonly values: Readonly<Record<string, string | number>>
  readonly offer?: EditCommand
}

export type Edited =
  { readonly ok: true; readonly score: Score } | { readonly ok: false; readonly refusal: EditRefusal }

export const done = (score: Score): Edited => ({ ok: true, score })

/** @param rest the figures of the reason, where it has some; and what can be written instead */
export const refused = <R extends RefusalReason>(
  reason: R,
  ...[values, offer]: keyof RefusalValues<R> extends never
    ? [values?: Record<string, never>, offer?: EditCommand | undefined]
    : [values: RefusalValues<R>, offer?: EditCommand | undefined]
): { readonly ok: false; readonly refusal: EditRefusal } => ({
  ok: false,
  refusal: { reason, values: values ?? {}, ...(offer ? { offer } : {}) },
})
