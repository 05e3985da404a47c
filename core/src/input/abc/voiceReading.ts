import type { GivenPlace } from './placeMarks.ts'
import type { Id } from '../../document/ids.ts'
import type { AbcSpan, ChordMark, Jump, Section, TempoMark, Tuplet, TuneEvent } from '../../document/tune.ts'
import type { Key } from '../../music/pitch/key.ts'
import { type Metre } from '../../music/time/metre.ts'
import { type Ticks } from '../../music/time/ticks.ts'
import type { Problem } from '../problem.ts'
import { type Propagation } from './accidentals.ts'

export interface DraftMeasure {
  id: Id
  length: Ticks
  metre: Metre
  key: Key
  repeatStart: boolean
  repeats: boolean
  barline: 'single' | 'double' | 'final' | 'none'
  endings: number[]
  segno: boolean
  coda: boolean
  fine: boolean
  jump?: Jump
  from: number
}

/** What one voice of a tune holds. Positions refer to the voice's own measures. */
export interface VoiceReading {
  readonly measures: DraftMeasure[]
  readonly events: TuneEvent[]
  readonly chords: ChordMark[]
  readonly tuplets: Tuplet[]
  readonly sections: Section[]
  readonly tempos: TempoMark[]
  readonly spans: AbcSpan[]
  /** Where notes are to be played, by their event. */
  readonly places: Map<Id, readonly GivenPlace[]>
}

/** What holds where a voice begins. */
export interface VoiceStart {
  readonly voice: number
  readonly metre: Metre
  readonly key: Key
  readonly signature: readonly { readonly acc: string; readonly note: string }[]
  /** Semitones that an octave clef or a transposing clef adds to the written notes. */
  readonly transpose: number
  readonly propagation: Propagation
}

/** Takes down a problem; `offset` counts characters of the text that the parser was given. */
export type Report = (severity: Problem['severity'], offset: number, says: Problem['says']) => void
