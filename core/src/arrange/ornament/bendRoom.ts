import { handFault } from '../../hand/grip/handRules.ts'
import { pressedOf } from '../../hand/grip/pressed.ts'
import type { Grip, PressedPlace, TabNote } from '../../document/tab.ts'
import type { Setup } from '../../instrument/setup.ts'
import { allPressed } from './handRoom.ts'

/** The first frets leave no room to push a string. Common practice, no source. */
export const LEAST_BEND_FRET = 2

/**
 * Semitones that a string can be pushed: plain treble strings a whole step, the third half a step, wound ones and
 * doubled ones not. Common practice for acoustic guitars, no source.
 */
export function bendableBy({ instrument }: Setup, string: number): number {
  if (instrument.doubling > 1) return 0
  return string <= 2 ? 2 : string === 3 ? 1 : 0
}

/**
 * Whether a finger may push its string up to a note that would else be stopped higher: room on the neck, a finger behind
 * it, a string that gives, and nothing held on the strings beside it.
 * @param from where the finger stays
 * @param to where the note would be stopped, by the same finger or another
 * @param at a grip under the second note
 * @returns the grip with the pushing finger left where it was, and the other one off the string
 */
export function bentGrip(
  setup: Setup,
  from: Pick<TabNote, 'place' | 'left'>,
  to: Pick<TabNote, 'place' | 'left'>,
  at: Grip,
): Grip | undefined {
  const { string, fret } = from.place
  const { left } = from
  const semitones = to.place.fret - fret
  if (to.place.string !== string || typeof left !== 'number' || left < 2 || fret < LEAST_BEND_FRET)
    return undefined
  if (semitones < 1 || semitones > bendableBy(setup, string)) return undefined
  const isOn = (p: PressedPlace) => p.string === string
  // A finger left on the string above the stop would sound instead of it.
  const others = at.pressed.filter((p) => !isOn(p) || (p.fret < fret && p.finger !== left))
  if (others.some((p) => p.finger === left || Math.abs(p.string - string) === 1)) return undefined
  const pressed = [...others, { string, fret, finger: left as PressedPlace['finger'] }]
  const grip = { ...at, pressed }
  return handFault(setup, setup.player.spans, pressedOf(allPressed(grip))) ? undefined : grip
}
