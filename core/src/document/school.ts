import type { PickingSchool } from '../instrument/hand.ts'
import type { BassOrder } from './bassOrder.ts'

/** Flat pick: down and up in strict turn, or by the place in the beat (down on it, up off it). */
export const STROKE_RULES = ['byBeat', 'alternate'] as const
export type StrokeRule = (typeof STROKE_RULES)[number]

/** Whether the root is plucked where the harmony changes. */
export const ROOT_RULES = ['always', 'sometimes', 'never'] as const
export type RootRule = (typeof ROOT_RULES)[number]

/** Whether the hand stays in its position, uses open strings where it can, or neither is preferred. */
export const HAND_RULES = ['free', 'position', 'open'] as const
export type HandRule = (typeof HAND_RULES)[number]

/** Whether the basses of an accompaniment walk into a new chord, and whether a fast change is played on open strings. */
export const RUN_RULES = ['never', 'changes'] as const
export const LIFT_RULES = ['never', 'fast'] as const

/** Where teachers disagree: choices that change what is computed. */
export interface School {
  /** Absent: as the player picks. */
  readonly picking?: PickingSchool
  readonly strokes: StrokeRule
  readonly root: RootRule
  /** Equal measures are played alike, or varied where there is another good way. */
  readonly repeats: 'alike' | 'varied'
  readonly hand: HandRule
  /** Side of the tune on which double stops add their second voice. */
  readonly harmony: 'below' | 'above'
  /** What of the source is played: the melody, or its second voice too (two parts into one instrument). */
  readonly parts: 'melody' | 'both'
  /** Accompaniments: whether the basses walk from chord to chord; absent: from level 4 on. */
  readonly runs?: (typeof RUN_RULES)[number]
  /** Accompaniments: in a fast change the last stroke falls on open strings, so that the hand has time. */
  readonly liftOff?: (typeof LIFT_RULES)[number]
  /** Chords whose bass strings are said; the others are found. */
  readonly bassStrings?: readonly BassOrder[]
}

export const USUAL_SCHOOL: School = {
  strokes: 'byBeat',
  root: 'always',
  repeats: 'alike',
  hand: 'free',
  harmony: 'below',
  parts: 'melody',
}
