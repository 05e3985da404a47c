import type { Setup } from '../instrument/setup.ts'
import type { Close, LastChord } from './close.ts'
import type { Feel } from './feel.ts'
import type { Id } from './ids.ts'
import type { Lock } from './locks.ts'
import type { School } from './school.ts'
import type { Level, Omission, Ornament, Style } from './style.ts'
import type { Grip, Span, TabNote } from './tab.ts'
import type { TasteInForce } from './taste.ts'

/** Moves with every change of shape; `schema/migrate.ts` brings earlier documents here. */
export const ARRANGEMENT_SCHEMA = 5

export interface Layer {
  readonly notes: readonly TabNote[]
  readonly spans: readonly Span[]
  readonly grips: readonly Grip[]
  readonly locks: readonly Lock[]
}

/** Other notes for some measures, for a student, a level or a pass. */
export interface Variant {
  readonly id: Id
  /** What it does otherwise, in words. */
  readonly name: string
  readonly measures: readonly Id[]
  readonly when: { readonly student?: Id; readonly level?: number; readonly pass?: number }
  readonly layer: Layer
}

/** A stretch of measures (inclusive) in one style at one level. */
export interface Region {
  readonly from: Id
  readonly to: Id
  readonly style: Style
  readonly level: Level
  /** Absent: the usual school. */
  readonly school?: School
  /** Octaves by which the melody is moved here, up or down. */
  readonly octave?: -1 | 1
  /** What an easier version does without. */
  readonly without?: readonly Omission[]
  /** How much of the tune is ornamented; absent: what the source has. */
  readonly ornament?: Ornament
  /** What an accompaniment repeats; absent: the usual pattern of its style, level and metre. */
  readonly pattern?: PatternText
  /** True where the tab was given, as strings and frets: what was typed stays as it is, and nothing is added to it. */
  readonly given?: true
  /** How unevenly beats are halved here; absent: evenly. */
  readonly feel?: Feel
  /** How the tune comes to its end, where this region holds it; absent: in time. */
  readonly close?: Close
  /** How the tune's last chord is sounded; absent: plainly. */
  readonly lastChord?: LastChord
  /** Whose taste it is made to; absent: the house's. */
  readonly taste?: TasteInForce
}

/**
 * A pattern of the picking hand in writing (see `accompany/patternText.ts`), for one metre, with a number of steps to
 * each beat.
 */
export interface PatternText {
  readonly metre: { readonly num: number; readonly den: number }
  readonly perBeat: number
  readonly text: string
}

export interface ArrangementDoc {
  readonly schema: typeof ARRANGEMENT_SCHEMA
  readonly id: Id
  readonly rev: number
  readonly name: string
  readonly tuneId: Id
  readonly tuneRev: number
  /** Hash of everything that the solver read; a different one means that the tab is stale. */
  readonly inputHash: string
  readonly setup: Setup
  readonly regions: readonly Region[]
  /** Sounding minus source, in semitones. */
  readonly transposed: number
  /** A tempo to be reached, in quarter notes a minute: the goal, or a partner's. Absent: the tune's own. */
  readonly goalBpm?: number
  readonly base: Layer
  readonly variants: readonly Variant[]
}
