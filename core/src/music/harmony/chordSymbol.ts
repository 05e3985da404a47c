import {
  mod12,
  nameText,
  pitchClass,
  plainName,
  type NoteName,
  type PitchClass,
  type Step,
} from '../pitch/pitch.ts'
import { noteIn, toLetters, type NoteNaming } from '../pitch/noteNaming.ts'
import { qualityIntervals, qualityText, readQuality } from './chordQuality.ts'

/** A chord as read from its symbol. `intervals` are semitones above the root, from the root up. */
export interface ChordReading {
  readonly root: NoteName
  readonly quality: string
  readonly intervals: readonly number[]
  readonly bass?: NoteName
}

/** What a chord symbol turned out to be: a chord, an explicit silence ("N.C."), or not understood. */
export type SymbolReading =
  | { readonly kind: 'chord'; readonly chord: ChordReading }
  | { readonly kind: 'noChord' }
  | { readonly kind: 'unknown' }

const SYMBOL = /^([A-G])(##|#|bb|b)?(.*?)(?:\/([A-G])(##|#|bb|b)?)?$/

function readName(step: string, sign: string | undefined): NoteName {
  const alter = !sign ? 0 : sign[0] === '#' ? sign.length : -sign.length
  return { step: step as Step, alter }
}

/**
 * Reads a chord symbol as lead sheets write it.
 * @example readChordSymbol('F♯m7/E') // chord on F sharp, [0, 3, 7, 10], bass E
 */
export function readChordSymbol(text: string): SymbolReading {
  const plain = plainSigns(text)
  if (/^(n\.?\s*c\.?|no chord)$/i.test(plain)) return { kind: 'noChord' }
  const match = SYMBOL.exec(plain)
  if (!match) return { kind: 'unknown' }
  const [, step, sign, rest = '', bassStep, bassSign] = match
  const parts = readQuality(rest)
  if (!parts || !step) return { kind: 'unknown' }
  const bass = bassStep ? readName(bassStep, bassSign) : undefined
  const root = readName(step, sign)
  const quality = qualityText(parts)
  const intervals = qualityIntervals(parts)
  // A symbol that contradicts itself (augmented with a flat fifth) has no spelling that reads back: not understood.
  const again = readQuality(quality)
  if (!again || qualityIntervals(again).join() !== intervals.join()) return { kind: 'unknown' }
  const chord = { root, quality, intervals }
  return { kind: 'chord', chord: bass ? { ...chord, bass } : chord }
}

/** The many signs for sharp, flat, minus, major seventh and diminished made one each. */
function plainSigns(text: string): string {
  return text
    .trim()
    .replaceAll('♯', '#')
    .replaceAll('♭', 'b')
    .replaceAll(/[△Δ]/g, '∆')
    .replaceAll('º', '°')
    .replaceAll('Ø', 'ø')
    .replaceAll(/[−–]/g, '-')
}

/**
 * The nearest text that is understood as a chord: a capital root, then as few signs left out as possible.
 * @example nearestChord('Cm7foo') // 'Cm7'
 */
export function nearestChord(text: string): string | undefined {
  const plain = plainSigns(text)
    .replace(/^[a-h]/, (c) => c.toUpperCase())
    .replace(/^H/, 'B')
  let rank = [plain]
  for (let left = plain.length; left > 0; left--) {
    for (const candidate of rank) {
      const reading = readChordSymbol(candidate)
      if (reading.kind === 'chord') return chordText(reading.chord)
    }
    // Two rounds of leaving out any sign; after that the end is worn down.
    const shorter = rank.map((c) => c.slice(0, -1))
    if (plain.length - left < 2)
      for (const c of rank)
        for (let i = c.length - 2; i > 0; i--) shorter.push(c.slice(0, i) + c.slice(i + 1))
    rank = [...new Set(shorter)]
  }
  return undefined
}

/** The chord's pitch classes, root first; a foreign slash bass comes last. */
export function chordPitchClasses(chord: ChordReading): PitchClass[] {
  const root = pitchClass(chord.root)
  const pcs = chord.intervals.map((i) => mod12(root + i))
  if (chord.bass && !pcs.includes(pitchClass(chord.bass))) pcs.push(pitchClass(chord.bass))
  return pcs
}

/** The pitch class that belongs in the bass: the slash bass, else the root. */
export function bassPitchClass(chord: ChordReading): PitchClass {
  return pitchClass(chord.bass ?? chord.root)
}

/** @example chordText(chord) // 'F#m7/E' */
export function chordText(chord: ChordReading): string {
  return nameText(chord.root) + chord.quality + (chord.bass ? '/' + nameText(chord.bass) : '')
}

/** The chord moved by semitones; spelled with flats where `flats` asks for it. A move by 0 keeps the spelling. */
export function transposeChord(chord: ChordReading, semitones: number, flats: boolean): ChordReading {
  if (mod12(semitones) === 0) return chord
  const move = (n: NoteName) => plainName(pitchClass(n) + semitones, flats)
  return { ...chord, root: move(chord.root), ...(chord.bass ? { bass: move(chord.bass) } : {}) }
}

/**
 * A chord's name in a naming, with printed signs.
 * @example chordIn('german', chord) // 'Fism7' for F sharp minor seventh
 */
export function chordIn(naming: NoteNaming, chord: ChordReading): string {
  const quality = chord.quality
    .replaceAll(/b(?=\d)/g, '♭')
    .replaceAll('#', '♯')
    .replace(/^69/, '6/9')
  return noteIn(naming, chord.root) + quality + (chord.bass ? '/' + noteIn(naming, chord.bass) : '')
}

/** Reads a chord symbol whose root and bass are named in a naming. */
export function readChordIn(naming: NoteNaming, text: string): SymbolReading {
  const [upper = '', bass, ...rest] = text.trim().split(/\/(?=[A-Za-z])/)
  if (bass === undefined || rest.length > 0) return readChordSymbol(toLetters(naming, text.trim()))
  return readChordSymbol(`${toLetters(naming, upper)}/${toLetters(naming, bass)}`)
}
