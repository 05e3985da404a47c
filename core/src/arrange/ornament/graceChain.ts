import { knownIn, present } from '../../invariant.ts'
import type { Arrival, GraceNote, Grip, TabNote } from '../../document/tab.ts'
import type { LeftFinger } from '../../instrument/hand.ts'
import { lastFret, openPitch, type Setup } from '../../instrument/setup.ts'
import type { Midi } from '../../music/pitch/pitch.ts'
import { isTouched } from './arrival.ts'
import { fingersBeside, withFinger } from './handRoom.ts'

/** Short notes with the note that they lead to, and the grip that plays them all. */
export interface GraceChain {
  readonly graces: readonly GraceNote[]
  readonly attack: TabNote['attack']
  readonly grip: Grip
}

/**
 * Plays short notes before a note on the note's own string: the first is plucked, the others are hammered on and pulled
 * off, all their fingers down at once where they must be (a pull-off needs its target down before).
 * @param grip what the hand holds under the note
 * @returns undefined where the string has no such notes or the hand no finger for them
 */
export function graceChain(
  setup: Setup,
  note: Pick<TabNote, 'place' | 'left' | 'attack'>,
  grip: Grip,
  pitches: readonly Midi[],
): GraceChain | undefined {
  const { string } = note.place
  if (isTouched(note.place) || note.attack !== 'pluck') return undefined
  const frets = pitches.map((midi) => midi - openPitch(setup, string))
  if (frets.some((f) => f < 0 || f > lastFret(setup, string))) return undefined
  const main = note.place.fret
  const fingers = new Map<number, LeftFinger>([[main, note.left]])
  if (!fingers.has(0)) fingers.set(0, 0)
  let held = grip
  for (const fret of frets) {
    if (fingers.has(fret)) continue
    const beside = { fret: main, finger: note.left }
    const finger = fingersBeside(setup, held, { string, fret }, beside)[0]
    if (finger === undefined) return undefined
    held = present(withFinger(setup, held, { string, fret }, finger))
    fingers.set(fret, finger)
  }
  const chain = [...frets, main]
  const attacks: ('pluck' | Arrival)[] = []
  for (const [i, fret] of chain.entries()) {
    const before = chain[i - 1]
    if (before === undefined || before === fret) attacks.push('pluck')
    else attacks.push(fret > before ? 'hammer' : 'pull')
  }
  // A finger that holds other strings cannot be off this one before it hammers.
  const holds = grip.pressed.some((p) => p.finger === note.left && p.string !== string)
  if (holds && chain.some((fret, i) => fret === main && attacks[i] === 'hammer')) return undefined
  // What is struck again is no ornament of the fretting hand: grace and note of one pitch are left to the pick.
  return {
    graces: frets.map((fret, i) => ({
      place: { string, fret },
      left: knownIn(fingers, fret),
      attack: attacks[i]!,
    })),
    attack: attacks.at(-1)!,
    grip: held,
  }
}
