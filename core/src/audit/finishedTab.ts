import type { LeftFinger, PickingSchool, PickingSign } from '../instrument/hand.ts'
import type { Setup } from '../instrument/setup.ts'
import type { Midi } from '../music/pitch/pitch.ts'
import type { Role } from '../document/tab.ts'
import type { Ticks } from '../music/time/ticks.ts'

/** A note as the page shows it, in written order. `fret` counts from the capo, `midi` sounds. */
export interface WrittenNote {
  readonly measure: number
  readonly start: Ticks
  readonly duration: Ticks
  /** Ticks until the string stops. */
  readonly ring: Ticks
  readonly string: number
  readonly fret: number
  /** Parts of a natural harmonic, touched at `fret`. */
  readonly harmonic?: number
  /** Stopped at `fret` and touched an octave above it by the picking hand. */
  readonly artificial?: true
  readonly midi: Midi
  readonly role: Role
  readonly leftFinger: LeftFinger
  readonly rightFinger: PickingSign
  readonly technique: string
  /** Short notes before it, in order. */
  readonly graces?: readonly WrittenGrace[]
  /** Semitones that it is bent. */
  readonly bend?: number
  /** Slid into from no written note, or off to none. */
  readonly slideFromBelow?: true
  readonly slideFromAbove?: true
  readonly slideOffUp?: true
  readonly slideOffDown?: true
}

/** A short note before another, on the same page. */
export interface WrittenGrace {
  readonly string: number
  readonly fret: number
  readonly midi: Midi
  readonly leftFinger: LeftFinger
  readonly technique: string
  readonly optional?: true
}

/** All fingers that are down from a written time on, until the next. */
export interface HeldGrip {
  readonly start: Ticks
  readonly pressed: readonly {
    readonly string: number
    readonly fret: number
    readonly finger: LeftFinger
  }[]
}

/** A note of the source melody before transposing, ties joined. */
export interface SourceNote {
  readonly start: Ticks
  readonly duration: Ticks
  readonly midi: Midi
  /** Semitones by which it alone is moved (already in `midi`): the instrument does not have it where it stood. */
  readonly moved?: number
}

/** A chord as it sounds: pitch classes wanted in the bass and in the chord; neither where no chord was understood. */
export interface SoundingChord {
  readonly start: Ticks
  readonly symbol: string
  readonly bass?: number
  readonly tones?: readonly number[]
  /** True where style and school ask for the root in the bass here. */
  readonly rootWanted: boolean
}

/** All that the audit may know: the page and the source, nothing of how the tab was found. */
export interface FinishedTab {
  readonly setup: Setup
  readonly transposed: number
  readonly measures: readonly {
    readonly start: Ticks
    readonly length: Ticks
    readonly number: number
    /** How it is picked; absent: as the player picks. */
    readonly picking?: PickingSchool
    /** True where the tab was given, each length with it. */
    readonly given?: boolean
    /** True where the style lets harmony lie over the melody. */
    readonly harmonyAbove?: boolean
  }[]
  /** Measure indices in played order. */
  readonly order: readonly number[]
  /** Quarter notes a minute by written time, the first at 0. */
  readonly tempos: readonly { readonly start: Ticks; readonly bpm: number }[]
  readonly source: readonly SourceNote[]
  readonly notes: readonly WrittenNote[]
  /** What the fretting hand holds, in order of time; empty where the page does not say. */
  readonly grips: readonly HeldGrip[]
  readonly chords: readonly SoundingChord[]
}
