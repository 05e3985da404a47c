import type { Key } from '../../music/pitch/key.ts'
import type { LeftFinger, PickingSign } from '../../instrument/hand.ts'
import type { Metre } from '../../music/time/metre.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import type { Problem } from '../problem.ts'
import type { TabToken } from './tabTokens.ts'

/** A sign of a pasted tab at its time in the measure. */
export interface ReadSign extends TabToken {
  readonly tick: Ticks
  /** Belongs to the sign after it on its string, as a short note. */
  readonly grace?: true
  /** Slid into from no fret before it. */
  readonly slidIn?: 'below' | 'above'
  /** Fingers that the text names. */
  readonly left?: LeftFinger
  /** Damped by the palm. */
  readonly palm?: true
  /** Left to ring until its string is struck again. */
  readonly letRing?: true
  /** Stopped by a bottleneck. */
  readonly bottle?: true
  readonly right?: PickingSign
}

/** A measure of a pasted tab. */
export interface ReadMeasure {
  readonly length: Ticks
  readonly signs: readonly ReadSign[]
  readonly chords: readonly { readonly tick: Ticks; readonly symbol: string }[]
  /** True where the rhythm was taken from the spacing. */
  readonly guessed: boolean
  readonly repeatStart: boolean
  readonly repeatEnd: boolean
  /** How often the passage that ends here is played, where the text says it. */
  readonly times?: number
  /** The part that begins here. */
  readonly part?: string
  readonly line: number
}

/** A plain-text tab as read: places in time, and what could not be taken as it stands. */
export interface ReadTab {
  readonly title?: string
  readonly artist?: string
  /** Which of several instruments it is. */
  readonly player?: string
  /** As the head says it: of the shapes or of what sounds. */
  readonly key?: Key
  /** Quarter notes a minute. */
  readonly bpm?: number
  /** As the head says it, from the lowest string. */
  readonly tuning?: string
  readonly strings: number
  /** Names of the strings, string 1 first; absent where the text has none. */
  readonly names?: readonly string[]
  readonly capo: number
  /** True where the text says that chord names are those of the shapes. */
  readonly shapes: boolean
  /** True where the text says that the chord names are suggestions. */
  readonly suggested: boolean
  readonly metre: Metre
  readonly measures: readonly ReadMeasure[]
  readonly problems: readonly Problem[]
}
