import type { Attack, GraceNote } from '../../document/tab.ts'
import type { Finger, PlacedFinger } from '../../hand/moves/placedFinger.ts'
import type { Expression } from '../../document/expression.ts'
import type { Mark } from '../../document/marks.ts'
import type { PickingSign } from '../../instrument/hand.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import type { StepAlongside } from './alongside.ts'
import type { Count } from './beatCount.ts'

/** What the fretting hand does on the way to a moment. */
export interface HandMove {
  /** Fingers that stay where they are. */
  readonly stays: readonly PlacedFinger[]
  /** Fingers that go along their string to another fret without leaving it. */
  readonly slides: readonly PlacedFinger[]
  /** Fingers that come down: from the air, or from another string. */
  readonly lands: readonly PlacedFinger[]
  readonly lifts: readonly Finger[]
}

/** A note as it is to be played. */
export interface StepNote {
  readonly string: number
  readonly fret: number
  /** The finger that stops the string; absent on an open string, and where no finger is chosen yet. */
  readonly finger?: Finger
  /** What sounds the string; absent where the fretting hand does it alone, or nothing is chosen yet. */
  readonly picking?: PickingSign
  readonly attack: Attack
  /** The fret over which the string is touched for a harmonic. */
  readonly touched?: number
  readonly artificial: boolean
  /** Where the string is stopped beside the fret: on the nut's side of it, or beyond. */
  readonly beside?: 'short' | 'beyond'
  /** Semitones by which the string is pushed up. */
  readonly bend?: number
  readonly graces: readonly StepGrace[]
  readonly marks: readonly Mark[]
}

/** True for a note of which place, finger and picking say all. */
export const isBare = ({ touched, beside, bend, graces, marks }: StepNote): boolean =>
  touched === undefined &&
  beside === undefined &&
  bend === undefined &&
  graces.length === 0 &&
  marks.length === 0

/** A short note before another, on the same string. */
export interface StepGrace {
  readonly fret: number
  readonly finger?: Finger
  readonly attack: GraceNote['attack']
  /** May be left out. */
  readonly optional?: true
}

/** Fingers that any hand may choose among for a string, beside the one that the tab names. */
export interface AlternativeFinger {
  readonly string: number
  readonly fingers: readonly Finger[]
}

/** A chord shape that the hand holds whole, as it is called. */
export interface StepShape {
  readonly name: string
  /** True where it is put down here. */
  readonly taken: boolean
  /** Its fingers from the lowest string on, a barre once. */
  readonly fingers: readonly Finger[]
}

/** One moment of a lesson: what the hand does, what is struck, what goes on sounding. */
export interface LessonStep extends StepAlongside {
  /** Index of the measure. */
  readonly measure: number
  /** The pass on which the measure is played so, where it is played otherwise on the others. */
  readonly pass?: number
  readonly tick: Ticks
  readonly count: Count
  /** The little finger carries a bottleneck here. */
  readonly bottleneck?: true
  readonly hand: HandMove
  /** The shape that is held whole, where it has a name. */
  readonly shape?: StepShape
  /** The fret under the index finger; absent until a finger was down. */
  readonly position?: number
  /** The same, where it changes. */
  readonly shift?: { readonly from: number; readonly to: number }
  /** Fingers that the tab wants in two places at once: no hand can do it. */
  readonly conflicts?: readonly Finger[]
  /** Fingers that are free and wanted next, where the hand has nothing else to do. */
  readonly prepared?: readonly PlacedFinger[]
  /** Fingers that would cost the hand no more than the one that lands on a string. */
  readonly alternatives?: readonly AlternativeFinger[]
  readonly notes: readonly StepNote[]
  /** Strings that ring on from before. */
  readonly ringing: readonly number[]
  /** How it is played from here on, where something is stated. */
  readonly expression?: Expression
  /** The teacher's words at a note. */
  readonly remark?: string
}
