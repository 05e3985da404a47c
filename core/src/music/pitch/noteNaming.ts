import { present } from '../../invariant.ts'
import type { NoteName, Pitch, Step } from './pitch.ts'

/** How notes are called: letters, fixed-do syllables, or the German way (H for B natural, B for B flat). */
export const NOTE_NAMINGS = ['letters', 'syllables', 'german'] as const
export type NoteNaming = (typeof NOTE_NAMINGS)[number]

const SYLLABLES: Readonly<Record<Step, string>> = {
  C: 'Do',
  D: 'Re',
  E: 'Mi',
  F: 'Fa',
  G: 'Sol',
  A: 'La',
  B: 'Si',
}

const SIGNS: Readonly<Record<number, string>> = { [-2]: '♭♭', [-1]: '♭', 0: '', 1: '♯', 2: '♯♯' }

/**
 * A note's name in a naming, with printed signs.
 * @example noteIn('german', { step: 'B', alter: -1 }) // 'B'
 */
export function noteIn(naming: NoteNaming, name: NoteName): string {
  if (naming === 'german') return germanName(name)
  return (naming === 'letters' ? name.step : SYLLABLES[name.step]) + SIGNS[name.alter]!
}

/** A pitch with its octave; octave 4 starts at middle C. */
export function pitchIn(naming: NoteNaming, pitch: Pitch): string {
  return noteIn(naming, pitch) + String(pitch.octave)
}

function germanName({ step, alter }: NoteName): string {
  if (step === 'B')
    return alter === 0 ? 'H' : alter === -1 ? 'B' : alter < 0 ? 'Heses' : 'H' + 'is'.repeat(alter)
  if (alter >= 0) return step + 'is'.repeat(alter)
  if (step === 'E' || step === 'A') return step + 's' + 'es'.repeat(-alter - 1)
  return step + 'es'.repeat(-alter)
}

const GERMAN_ROOT = /^(?:([CDFGH])(isis|is|eses|es)?|(Heses)|([EA])(isis|is|ses|s)?|(B))(?!us)/
const SYLLABLE_ROOT = /^(do|r[eé]|mi|fa|sol|la|si)(##|#|bb|b|♯♯|♯|♭♭|♭)?/i

/**
 * Text that starts with a note in some naming, made to start with the letter name. Text that does not is returned as
 * it stands.
 * @example toLetters('german', 'Fism7') // 'F#m7'
 */
export function toLetters(naming: NoteNaming, text: string): string {
  if (naming === 'german') {
    const match = GERMAN_ROOT.exec(text)
    if (!match) return text
    const [whole, plain, sign, heses, vowel, vowelSign, flat] = match
    const rest = text.slice(whole.length)
    if (flat) return 'Bb' + rest
    if (heses) return 'Bbb' + rest
    if (plain) return (plain === 'H' ? 'B' : plain) + germanSign(sign) + rest
    return present(vowel) + germanSign(vowelSign) + rest
  }
  if (naming === 'syllables') {
    const match = SYLLABLE_ROOT.exec(text)
    if (!match) return text
    const syllable = match[1]!.toLowerCase().replace('é', 'e')
    const step = present(Object.entries(SYLLABLES).find(([, s]) => s.toLowerCase() === syllable))[0]
    return step + (match[2] ?? '').replaceAll('♯', '#').replaceAll('♭', 'b') + text.slice(match[0].length)
  }
  return text
}

function germanSign(sign: string | undefined): string {
  if (!sign) return ''
  if (sign.startsWith('is')) return sign === 'isis' ? '##' : '#'
  return sign === 'eses' || sign === 'ses' ? 'bb' : 'b'
}
