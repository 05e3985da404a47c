import type { Attack, PressedPlace, Role } from '../../document/tab.ts'
import type { LeftFinger, Stroke } from '../../instrument/hand.ts'
import type { Place } from '../../instrument/setup.ts'
import type { Ticks } from '../../music/time/ticks.ts'

/** One string of an onset. */
export interface Sounded {
  readonly place: Place
  readonly finger: LeftFinger
  readonly role: Exclude<Role, 'melody'>
  readonly attack: Attack
  readonly optional: boolean
}

/** What the fretting hand holds, and the chord that it is called by. */
export interface HeldHand {
  readonly pressed: readonly PressedPlace[]
  readonly shape?: string
}

/** What an accompaniment sounds at one moment. */
export interface AccompanyOnset {
  readonly start: Ticks
  readonly measure: number
  /** Index of the harmony segment. */
  readonly segment: number
  readonly sounds: readonly Sounded[]
  /** The arm's direction, where strings are swept. */
  readonly stroke?: Stroke
  readonly accent: boolean
  readonly palm: boolean
  readonly hand: HeldHand
}
