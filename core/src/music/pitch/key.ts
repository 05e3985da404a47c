import { noteIn, type NoteNaming } from './noteNaming.ts'
import {
  STEPS,
  mod12,
  nameText,
  pitchClass,
  plainName,
  type Midi,
  type NoteName,
  type Pitch,
  type PitchClass,
  type Step,
} from './pitch.ts'

export const MODES = ['major', 'minor', 'dorian', 'mixolydian', 'phrygian', 'lydian', 'locrian'] as const
export type Mode = (typeof MODES)[number]

/** A key: tonic, mode, and the signature in fifths (sharps positive, flats negative). */
export interface Key {
  readonly tonic: NoteName
  readonly mode: Mode
  readonly fifths: number
}

/** Fifths between the major key on a tonic and this mode on the same tonic. */
const MODE_FIFTHS: Readonly<Record<Mode, number>> = {
  lydian: 1,
  major: 0,
  mixolydian: -1,
  dorian: -2,
  minor: -3,
  phrygian: -4,
  locrian: -5,
}

/** The modes' scales in semitones above the tonic. */
export const MODE_STEPS = {
  major: [0, 2, 4, 5, 7, 9, 11],
  minor: [0, 2, 3, 5, 7, 8, 10],
  dorian: [0, 2, 3, 5, 7, 9, 10],
  mixolydian: [0, 2, 4, 5, 7, 9, 10],
  phrygian: [0, 1, 3, 5, 7, 8, 10],
  lydian: [0, 2, 4, 6, 7, 9, 11],
  locrian: [0, 1, 3, 5, 6, 8, 10],
} as const satisfies Readonly<Record<Mode, readonly number[]>>

const FIFTHS_OF_STEP: Readonly<Record<Step, number>> = { F: -1, C: 0, G: 1, D: 2, A: 3, E: 4, B: 5 }

/** @example keyOf({ step: 'A', alter: 0 }, 'minor').fifths // 0 */
export function keyOf(tonic: NoteName, mode: Mode): Key {
  return { tonic, mode, fifths: FIFTHS_OF_STEP[tonic.step] + 7 * tonic.alter + MODE_FIFTHS[mode] }
}

/** The major and minor keys of at most so many sharps or flats, in the order of the steps. */
export const plainKeys = (most: number): Key[] =>
  (['major', 'minor'] as const)
    .flatMap((mode) => STEPS.flatMap((step) => [0, -1, 1].map((alter) => keyOf({ step, alter }, mode))))
    .filter((k) => Math.abs(k.fifths) <= most)

/**
 * The key of a signature in a mode; signatures beyond seven signs are read as seven.
 * @example keyOfSignature(-1, 'minor') // D minor
 */
export function keyOfSignature(fifths: number, mode: Mode): Key {
  const within = Math.max(-7, Math.min(7, Math.round(fifths)))
  const keys = STEPS.flatMap((step) => [0, 1, -1].map((alter) => keyOf({ step, alter }, mode)))
  return keys.find((k) => k.fifths === within) ?? keyOf({ step: 'C', alter: 0 }, mode)
}

const SHARP_ORDER: readonly Step[] = ['F', 'C', 'G', 'D', 'A', 'E', 'B']

/** Alteration that the signature gives a step: +1, 0 or −1. */
export function signatureAlter(fifths: number, step: Step): number {
  const at = SHARP_ORDER.indexOf(step)
  if (fifths > 0) return at < fifths ? (at < fifths - 7 ? 2 : 1) : 0
  return 6 - at < -fifths ? -1 : 0
}

/** The seven pitch classes of the key's scale, from the tonic up. */
export function scaleOf(key: Key): PitchClass[] {
  const tonic = pitchClass(key.tonic)
  return MODE_STEPS[key.mode].map((s) => mod12(tonic + s))
}

/** @example keyText(keyOf({ step: 'D', alter: 0 }, 'dorian')) // 'D dorian' */
export function keyText(key: Key): string {
  return `${nameText(key.tonic)} ${key.mode}`
}

/** A key's name in a naming, the mode in English. */
export function keyIn(naming: NoteNaming, key: Key): string {
  return `${noteIn(naming, key.tonic)} ${key.mode}`
}

/** Spells a MIDI number in a key: scale notes by the signature, others by its leaning to sharps or flats. */
export function spellInKey(midi: Midi, key: Key): Pitch {
  const pc = mod12(midi)
  for (const step of STEPS) {
    const alter = signatureAlter(key.fifths, step)
    if (pitchClass({ step, alter }) === pc) return withOctave(midi, { step, alter })
  }
  return withOctave(midi, plainName(pc, key.fifths < 0))
}

/** Gives a name the octave in which it sounds as this MIDI number (B sharp and C flat cross the octave). */
export function withOctave(midi: Midi, name: NoteName): Pitch {
  const natural = midi - name.alter
  return { ...name, octave: Math.floor(natural / 12) - 1 }
}

/** The key moved by semitones, spelled with at most six sharps or flats. */
export function transposeKey(key: Key, semitones: number): Key {
  if (mod12(semitones) === 0) return key
  const pc = mod12(pitchClass(key.tonic) + semitones)
  const sharp = keyOf(plainName(pc, false), key.mode)
  const flat = keyOf(plainName(pc, true), key.mode)
  return Math.abs(flat.fifths) <= Math.abs(sharp.fifths) ? flat : sharp
}
