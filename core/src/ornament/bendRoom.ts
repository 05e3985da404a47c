import { handFault } from '../grip/handRules.ts'
import { pressedOf } from '../grip/pressed.ts'
import type { Grip, TabNote } from '../model/arrangement.ts'
import type { Setup } from '../neck/setup.ts'

/** The first frets leave no room to push a string. Common practice, no source. */
export const LEAST_BEND_FRET = 2

/**
 * Semitones that a string can be pushed: plain treble strings a whole step, the third half a step, wound ones not.
 * Common practice for acoustic guitars, no source.
 */
export const bendableBy = (string: number): number => (string <= 2 ? 2 : string === 3 ? 1 : 0)

/**
 * Whether a finger may push its string up to a note instead of sliding there: room on the neck, a finger behind it, a
 * string that gives, and nothing held on the strings beside it.
 * @param at the grip under the second note, with the finger where it would slide to
 * @returns the grip with the finger left where it was
 */
export function bentGrip(
  setup: Setup,
  from: Pick<TabNote, 'place' | 'left'>,
  to: Pick<TabNote, 'place' | 'left'>,
  at: Grip,
): Grip | undefined {
  const { string, fret } = from.place
  const semitones = to.place.fret - fret
  const pushes = typeof from.left === 'number' && from.left >= 2 && from.left === to.left
  if (to.place.string !== string || !pushes || fret < LEAST_BEND_FRET) return undefined
  if (semitones < 1 || semitones > bendableBy(string)) return undefined
  const pressed = at.pressed.map((p) => (p.finger === from.left ? { ...p, fret } : p))
  if (pressed.some((p) => p.finger !== from.left && Math.abs(p.string - string) === 1)) return undefined
  return handFault(setup, setup.player.spans, pressedOf(pressed)) ? undefined : { ...at, pressed }
}
