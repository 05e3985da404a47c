import { pitchAt, type Place, type Setup } from '../instrument/setup.ts'
import {
  mod12,
  pitchClass,
  plainPitch,
  STEPS,
  type NoteName,
  type Pitch,
  type Step,
} from '../music/pitch/pitch.ts'
import { degreeAbove, SCALES, scaleTones, type ScaleName } from '../music/pitch/scale.ts'
import { chordPitchClasses, readChordSymbol, type ChordReading } from '../music/harmony/chordSymbol.ts'
import { degreeIn } from '../music/harmony/chordTones.ts'

/** What somebody says about a place: a note, a degree of a key, a tone of a chord or of a scale. */
export type Claim =
  | { readonly kind: 'note'; readonly name: NoteName; readonly octave?: number }
  | { readonly kind: 'degree'; readonly degree: string; readonly tonic: NoteName }
  | { readonly kind: 'chord'; readonly chord: ChordReading }
  | { readonly kind: 'scale'; readonly tonic: NoteName; readonly scale: ScaleName }

const SCALE_WORDS: Readonly<Record<string, ScaleName>> = {
  ...(Object.fromEntries(Object.keys(SCALES).map((s) => [s.toLowerCase(), s])) as Record<string, ScaleName>),
  naturalminor: 'minor',
  pentatonic: 'majorPentatonic',
}

/** A note with or without octave, as in "F#" or "E4". */
export function readNote(text: string): { readonly name: NoteName; readonly octave?: number } | undefined {
  const match = /^([A-G])(##|#|bb|b)?(\d)?$/.exec(text.trim().replaceAll('♯', '#').replaceAll('♭', 'b'))
  return match ? { name: nameFrom(match), ...(match[3] ? { octave: Number(match[3]) } : {}) } : undefined
}

/**
 * Reads a claim as it is said: "F#", "F#4", "3 of D", "b7 of A", "D7", "G major", "A minor pentatonic".
 * A letter with an octave up to 6 is a note, with 7 or 9 a chord; a bare letter is a note; "D chord" is the chord.
 */
export function readClaim(text: string): Claim | undefined {
  const plain = text.trim().replaceAll('♯', '#').replaceAll('♭', 'b')
  const note = /^([A-G])(##|#|bb|b)?([0-6])?$/.exec(plain)
  if (note) return { kind: 'note', name: nameFrom(note), ...(note[3] ? { octave: Number(note[3]) } : {}) }
  const degree = /^([#b]?[1-7])\s+(?:of|in)\s+([A-G])(##|#|bb|b)?m?$/.exec(plain)
  if (degree) return { kind: 'degree', degree: sameDegree(degree[1]!), tonic: nameFrom(degree.slice(1)) }
  const scale = /^([A-G])(##|#|bb|b)?\s+(.+)$/.exec(plain)
  const known = scale && SCALE_WORDS[scale[3]!.toLowerCase().replaceAll(/\s|scale/g, '')]
  if (scale && known) return { kind: 'scale', tonic: nameFrom(scale), scale: known }
  const chord = readChordSymbol(plain.replace(/\s*chord$/, ''))
  return chord.kind === 'chord' ? { kind: 'chord', chord: chord.chord } : undefined
}

function nameFrom(match: readonly (string | undefined)[]): NoteName {
  const sign = match[2] ?? ''
  return { step: match[1] as Step, alter: sign.startsWith('b') ? -sign.length : sign.length }
}

/** Degrees are named with flats; a raised one is the same place as the lowered next. */
function sameDegree(degree: string): string {
  const raised: Readonly<Record<string, string>> = {
    '#1': 'b2',
    '#2': 'b3',
    '#3': '4',
    '#4': 'b5',
    '#5': 'b6',
    '#6': 'b7',
    '#7': '1',
    b1: '7',
    b4: '3',
  }
  return raised[degree] ?? degree
}

/** What a place really is, seen from the claim. */
export interface ClaimVerdict {
  readonly holds: boolean
  /** The pitch that sounds, spelled as the claim would spell it. */
  readonly pitch: Pitch
  /** The degree of the sounding pitch in the claimed key, chord or scale. */
  readonly degree?: string
}

/** Checks a claim against what the place sounds, with its tuning and capo. */
export function checkClaim(setup: Setup, place: Place, claim: Claim): ClaimVerdict {
  const midi = pitchAt(setup, place)
  const pc = mod12(midi)
  if (claim.kind === 'note') {
    const pitch = spelledLike(midi, claim.name)
    const same = pitchClass(claim.name) === pc
    return { holds: same && (claim.octave === undefined || pitch.octave === claim.octave), pitch }
  }
  if (claim.kind === 'degree') {
    const degree = degreeAbove(claim.tonic, pc)
    return { holds: degree === claim.degree, pitch: spelledLike(midi, claim.tonic), degree }
  }
  if (claim.kind === 'chord')
    return {
      holds: chordPitchClasses(claim.chord).includes(pc),
      pitch: spelledLike(midi, claim.chord.root),
      degree: degreeIn(claim.chord, pc),
    }
  return {
    holds: scaleTones(claim.tonic, claim.scale).includes(pc),
    pitch: spelledLike(midi, claim.tonic),
    degree: degreeAbove(claim.tonic, pc),
  }
}

/** Spells as the name given does when it is that pitch class, else with its kind of sign. */
function spelledLike(midi: number, name: NoteName): Pitch {
  if (pitchClass(name) === mod12(midi)) return { ...name, octave: Math.floor((midi - name.alter) / 12) - 1 }
  const flatKey = name.alter < 0 || (name.alter === 0 && STEPS.indexOf(name.step) === 3)
  return plainPitch(midi, flatKey)
}
