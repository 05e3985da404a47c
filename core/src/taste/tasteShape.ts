import { isHeldBy, soundsAsChord } from '../chords/textbook.ts'
import type { TasteShape } from '../document/taste.ts'
import type { LeftFinger } from '../instrument/hand.ts'
import type { Setup } from '../instrument/setup.ts'
import { readChordSymbol } from '../music/harmony/chordSymbol.ts'

/** What is wrong with a shape: it cannot be read, is not the chord, or no hand like this one holds it. */
export type TasteShapeProblem = 'unreadable' | 'chord' | 'hand'

/** Why a shape says nothing: it is not its chord, or this hand does not hold it; undefined where all is well. */
export function shapeFault(
  setup: Setup,
  shape: TasteShape,
): Exclude<TasteShapeProblem, 'unreadable'> | undefined {
  const reading = readChordSymbol(shape.chord)
  if (reading.kind !== 'chord' || !soundsAsChord(shape.frets, reading.chord, setup)) return 'chord'
  return isHeldBy(setup, shape) ? undefined : 'hand'
}

const WITH_THUMB = { barre: true, thumbOver: true }

/**
 * Reads a shape as a teacher writes it: a chord, frets and fingers from the lowest string.
 * @example readTasteShape('G', '320003', '320004', guitarSetup())
 */
export function readTasteShape(
  chord: string,
  frets: string,
  fingers: string,
  setup: Setup,
):
  | { readonly ok: true; readonly shape: TasteShape }
  | { readonly ok: false; readonly problem: TasteShapeProblem } {
  const { strings } = setup.instrument
  const fretSigns = signsOf(frets)
  const fingerSigns = signsOf(fingers)
  const isWhole =
    fretSigns.length === strings &&
    fingerSigns.length === strings &&
    fretSigns.every((s) => /^(x|\d{1,2})$/i.test(s)) &&
    fingerSigns.every((s) => /^[0-4tx]$/i.test(s))
  if (!isWhole) return { ok: false, problem: 'unreadable' }
  const read = {
    chord: chord.trim(),
    tuning: setup.tuning,
    frets: fretSigns.map((s) => (/x/i.test(s) ? null : Number(s))).reverse(),
    fingers: fingerSigns
      .map((s): LeftFinger => (/t/i.test(s) ? 'T' : ((Number(s) || 0) as LeftFinger)))
      .reverse(),
  }
  const isFingered = read.frets.every((fret, i) => (fret ? read.fingers[i] !== 0 : read.fingers[i] === 0))
  if (!isFingered) return { ok: false, problem: 'unreadable' }
  const able = {
    ...setup,
    player: { ...setup.player, techniques: { ...setup.player.techniques, ...WITH_THUMB } },
  }
  const fault = shapeFault(able, read)
  return fault ? { ok: false, problem: fault } : { ok: true, shape: read }
}

/** Signs that stand together, or apart where a fret has two digits. */
const signsOf = (text: string): string[] => {
  const plain = text.trim()
  return /[\s-]/.test(plain) ? plain.split(/[\s-]+/) : [...plain]
}
