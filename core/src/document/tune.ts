import type { ChordReading } from '../music/harmony/chordSymbol.ts'
import type { Key } from '../music/pitch/key.ts'
import type { LeftFinger } from '../instrument/hand.ts'
import type { Midi, Pitch } from '../music/pitch/pitch.ts'
import type { Metre } from '../music/time/metre.ts'
import type { Ticks } from '../music/time/ticks.ts'
import type { Id } from './ids.ts'
import type { Song } from './song.ts'

export const TUNE_SCHEMA = 1

/** A moment inside a measure. */
export interface Pos {
  readonly measure: Id
  readonly tick: Ticks
}

/** Where a measure's material comes from. */
export type Provenance = 'source' | 'heard' | 'guessed' | 'choice'

/** What the player does at the end of a measure, as the page says it. */
export type Jump =
  'daCapo' | 'daCapoAlFine' | 'daCapoAlCoda' | 'dalSegno' | 'dalSegnoAlFine' | 'dalSegnoAlCoda'

/** One written measure. `length` differs from `nominal` in a pickup, a cut measure or a faulty one. */
export interface Measure {
  readonly id: Id
  readonly nominal: Ticks
  readonly length: Ticks
  /** True for a short measure that lacks its end; without it, it lacks its beginning. See `form/cutMeasures.ts`. */
  readonly cut?: true
  readonly metre: Metre
  readonly key: Key
  readonly repeatStart: boolean
  /** How often the passage that ends here is played in all; 1 where nothing is repeated. */
  readonly repeatEnd: number
  readonly barline: 'single' | 'double' | 'final' | 'none'
  /** Passes on which this ending is played; empty outside endings. */
  readonly endings: readonly number[]
  readonly segno?: boolean
  readonly coda?: boolean
  readonly fine?: boolean
  readonly jump?: Jump
  readonly provenance: Provenance
}

/** The written form of a duration. `ticks` is exact and includes the tuplet. */
export interface Duration {
  readonly ticks: Ticks
  /** Denominator of the note head: 1 whole, 2 half, 4 quarter … */
  readonly base: number
  readonly dots: number
  readonly tupletId?: Id
}

/** A note or rest as written. A tied note is several events joined by `tieTo`. */
export interface TuneEvent {
  readonly id: Id
  /** 0 is the melody; other voices are kept but not arranged yet. */
  readonly voice: number
  readonly pos: Pos
  readonly dur: Duration
  /** Absent for a rest. Sounding (concert) pitch. */
  readonly pitch?: Pitch
  /** Further notes struck with `pitch`, below it. Kept, not arranged yet. */
  readonly chordTones: readonly Pitch[]
  readonly tieTo?: Id
  readonly graces: readonly Pitch[]
  readonly ornaments: readonly string[]
  /** True where a slur joins the note to the one before it. */
  readonly slurred?: true
  /** Syllable sung on this note, with a hyphen at its end where the word goes on; and those of further verses. */
  readonly lyric?: string
  readonly moreLyrics?: readonly string[]
}

export interface ChordMark {
  readonly id: Id
  readonly pos: Pos
  readonly symbol: string
  /** Absent where the symbol was not understood or says that no chord sounds. */
  readonly parsed?: ChordReading
  readonly origin: 'given' | 'suggested' | 'typed'
}

/** `actual` notes in the time of `normal`. */
export interface Tuplet {
  readonly id: Id
  readonly actual: number
  readonly normal: number
}

export interface Section {
  readonly id: Id
  readonly name: string
  readonly measure: Id
}

export interface TempoMark {
  readonly pos: Pos
  /** Quarter notes a minute. */
  readonly bpm: number
  /** False where the source gave none and the usual 100 stands in. */
  readonly stated: boolean
}

export interface AbcSpan {
  readonly target: Id
  readonly from: number
  readonly to: number
}

/**
 * A chord shape that the teacher wants for this tune; the arranger takes it first. `chord` is the shape's own name (the
 * capo taken off); arrays are by string, string 1 first.
 */
export interface PinnedShape {
  readonly id: Id
  readonly chord: string
  /** The tuning that the shape is meant for. */
  readonly tuning: readonly Midi[]
  readonly frets: readonly (number | null)[]
  readonly fingers: readonly LeftFinger[]
}

/** A tune: the source that arrangements are made from. */
export interface TuneDoc {
  readonly schema: typeof TUNE_SCHEMA
  readonly id: Id
  readonly rev: number
  readonly title: string
  readonly composer?: string
  readonly measures: readonly Measure[]
  readonly events: readonly TuneEvent[]
  readonly chords: readonly ChordMark[]
  readonly tuplets: readonly Tuplet[]
  readonly sections: readonly Section[]
  readonly tempos: readonly TempoMark[]
  readonly pins?: readonly PinnedShape[]
  readonly source?: string
  readonly rights?: string
  readonly abc?: { readonly text: string; readonly spans: readonly AbcSpan[] }
  /** Words that hang on no notes. */
  readonly song?: Song
}
