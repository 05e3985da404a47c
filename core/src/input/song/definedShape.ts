import type { PinnedShape } from '../../document/tune.ts'
import type { LeftFinger } from '../../instrument/hand.ts'
import { fingeringsOf } from '../../hand/grip/fingering.ts'
import { guitarSetup } from '../../instrument/setup.ts'
import { readChordSymbol } from '../../music/harmony/chordSymbol.ts'

/** A chord shape that a song brings with it: a pin without its id. */
export type DefinedShape = Omit<PinnedShape, 'id'>

/**
 * Reads the shape of a `define` directive (the format's published description, from memory): frets from the lowest string, counted
 * from the base fret, `x` for a string that is not played; fingers where they are written.
 * @returns undefined for what is no shape of six strings that a hand can hold
 * @example definedShape('G/B base-fret 1 frets x 2 0 0 3 x fingers 0 1 0 0 3 0')
 */
export function definedShape(value: string): DefinedShape | undefined {
  const found =
    /^\s*(\S+)\s+(?:base-fret\s+(\d{1,2})\s+)?frets\s+((?:[xXnN]|-?\d{1,2})(?:\s+(?:[xXnN]|-?\d{1,2}))*)(?:\s+fingers\s+(.+))?\s*$/i.exec(
      value,
    )
  if (!found) return undefined
  const [, chord = '', base = '1', fretText = '', fingerText] = found
  const setup = guitarSetup()
  const frets = fretText
    .trim()
    .split(/\s+/)
    .map((f) => (/^\d/.test(f) ? (f === '0' ? 0 : Number(f) + Number(base) - 1) : null))
    .reverse()
  if (frets.length !== setup.instrument.strings || readChordSymbol(chord).kind !== 'chord') return undefined
  if (frets.every((f) => f === null) || frets.some((f) => f !== null && f > setup.instrument.frets))
    return undefined
  const fingers = fingersIn(fingerText, frets) ?? fingeringsOf(setup, frets, setup.player, 1)[0]?.fingers
  return fingers ? { chord, tuning: setup.tuning, frets, fingers } : undefined
}

const FINGERS: Readonly<Record<string, LeftFinger>> = { 1: 1, 2: 2, 3: 3, 4: 4, T: 'T', t: 'T' }

/** Fingers as written, from the lowest string; undefined where a stopped string has none. */
function fingersIn(text: string | undefined, frets: readonly (number | null)[]): LeftFinger[] | undefined {
  const words = text?.trim().split(/\s+/).reverse()
  if (words?.length !== frets.length) return undefined
  const fingers = words.map((w, i): LeftFinger => (frets[i] ? (FINGERS[w] ?? 0) : 0))
  return fingers.every((f, i) => !frets[i] || f !== 0) ? fingers : undefined
}
