import { midiOf, type Midi, type Step } from '../music/pitch/pitch.ts'
import type { Tuning } from './instrument.ts'
import { INSTRUMENTS, type InstrumentKind } from './instruments.ts'

/** Tunings by id, string 1 first. Common practice, no source. */
const GUITAR_TUNINGS = {
  standard: [64, 59, 55, 50, 45, 40],
  dropD: [64, 59, 55, 50, 45, 38],
  doubleDropD: [62, 59, 55, 50, 45, 38],
  dadgad: [62, 57, 55, 50, 45, 38],
  openD: [62, 57, 54, 50, 45, 38],
  openG: [62, 59, 55, 50, 43, 38],
  openC: [64, 60, 55, 48, 43, 36],
  halfStepDown: [63, 58, 54, 49, 44, 39],
  wholeStepDown: [62, 57, 53, 48, 43, 38],
  halfStepUp: [65, 60, 56, 51, 46, 41],
  wholeStepUp: [66, 61, 57, 52, 47, 42],
} as const satisfies Record<string, Tuning>

export type TuningId = keyof typeof GUITAR_TUNINGS

/** The named tunings of an instrument, the usual one first. */
export function namedTunings(
  kind: InstrumentKind,
): readonly { readonly id: TuningId; readonly tuning: Tuning }[] {
  if (kind === 'guitar')
    return (Object.keys(GUITAR_TUNINGS) as TuningId[]).map((id) => ({ id, tuning: GUITAR_TUNINGS[id] }))
  return [{ id: 'standard', tuning: INSTRUMENTS[kind].usual }]
}

/** A named tuning; the instrument's usual one where it has none of this name. */
export function tuningById(kind: InstrumentKind, id: TuningId): Tuning {
  return namedTunings(kind).find((n) => n.id === id)?.tuning ?? INSTRUMENTS[kind].usual
}

/** The id of a tuning that has one. */
export function tuningId(kind: InstrumentKind, tuning: Tuning): TuningId | undefined {
  return namedTunings(kind).find(
    (n) => n.tuning.length === tuning.length && n.tuning.every((p, i) => p === tuning[i]),
  )?.id
}

/** Why a typed tuning is refused. `string` counts from 1, the highest-pitched. */
export type TuningFault =
  | { readonly kind: 'count'; readonly strings: number; readonly found: number }
  | { readonly kind: 'notNote'; readonly string: number; readonly text: string }
  | {
      readonly kind: 'tooLow' | 'tooHigh'
      readonly string: number
      readonly text: string
      readonly semitones: number
    }

/** How far a string may be tuned from its usual pitch before it is slack, or breaks: semitones. No source. */
const LOOSEST = -9
const TIGHTEST = 5

/**
 * Reads a tuning as it is said, from the lowest string to the highest: a known name, or notes with or without octaves.
 * A note without octave is the one nearest to the string's usual pitch.
 * @example readTuning('guitar', 'D A D G A D') // { tuning: [62, 57, 55, 50, 45, 38] }
 */
export function readTuning(
  kind: InstrumentKind,
  text: string,
): { readonly tuning: Tuning } | { readonly fault: TuningFault } {
  const { instrument, usual } = INSTRUMENTS[kind]
  const wanted = text.toLowerCase().replaceAll(/[^a-z]/g, '')
  const named = namedTunings(kind).find((n) => n.id.toLowerCase() === wanted)
  if (named) return { tuning: named.tuning }
  const notes = splitNotes(text)
  if (notes.length !== instrument.strings)
    return { fault: { kind: 'count', strings: instrument.strings, found: notes.length } }
  const tuning: Midi[] = []
  for (const [i, note] of notes.reverse().entries()) {
    const string = i + 1
    const pitch = readOpenNote(note, usual[i]!)
    if (pitch === undefined) return { fault: { kind: 'notNote', string, text: note } }
    const semitones = pitch - usual[i]!
    if (semitones < LOOSEST) return { fault: { kind: 'tooLow', string, text: note, semitones } }
    if (semitones > TIGHTEST) return { fault: { kind: 'tooHigh', string, text: note, semitones } }
    tuning.push(pitch)
  }
  return { tuning }
}

/** Splits at spaces, commas or dashes; a word made of notes alone is split into its notes. */
function splitNotes(text: string): string[] {
  const parts = text
    .trim()
    .split(/[\s,;-]+/)
    .filter(Boolean)
  if (parts.length !== 1) return parts
  const letters = parts[0]!.match(/[A-Ga-g](?:#|b|♯|♭)?\d?/g) ?? []
  return letters.join('') === parts[0] ? letters : parts
}

const NOTE = /^([A-Ga-g])(#|b|♯|♭)?(-?\d)?$/

function readOpenNote(text: string, usual: Midi): Midi | undefined {
  const match = NOTE.exec(text)
  if (!match) return undefined
  const alter = !match[2] ? 0 : match[2] === '#' || match[2] === '♯' ? 1 : -1
  const name = { step: match[1]!.toUpperCase() as Step, alter }
  if (match[3] !== undefined) return midiOf({ ...name, octave: Number(match[3]) })
  const low = midiOf({ ...name, octave: 0 })
  return low + 12 * Math.round((usual - low) / 12)
}

/** What to do with one string to get from a tuning to another. */
export interface Turn {
  readonly string: number
  readonly from: Midi
  readonly to: Midi
  /** Positive is up. */
  readonly semitones: number
  /** True where the string is pulled so much tighter that it may break or strain the neck. */
  readonly careful: boolean
}

/** Semitones above the usual pitch from which a string is in danger. Common practice, no source. */
const CAREFUL_FROM = 1

/** The turns from one tuning to another, only the strings that change, lowest string first. */
export function retuning(kind: InstrumentKind, from: Tuning, to: Tuning): Turn[] {
  const { usual } = INSTRUMENTS[kind]
  return to
    .map((pitch, i) => ({
      string: i + 1,
      from: from[i]!,
      to: pitch,
      semitones: pitch - from[i]!,
      careful: pitch > from[i]! && pitch - usual[i]! >= CAREFUL_FROM,
    }))
    .filter((t) => t.semitones !== 0)
    .reverse()
}
