import {
  mod12,
  nameText,
  pitchClass,
  plainName,
  type NoteName,
  type PitchClass,
  type Step,
} from '../pitch/pitch.ts'

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

/** Qualities by their canonical spelling: semitones above the root. Checked against `tonal` in the tests. */
const QUALITIES: Readonly<Record<string, readonly number[]>> = {
  '': [0, 4, 7],
  m: [0, 3, 7],
  '5': [0, 7],
  '6': [0, 4, 7, 9],
  '69': [0, 4, 7, 9, 14],
  m6: [0, 3, 7, 9],
  m69: [0, 3, 7, 9, 14],
  '7': [0, 4, 7, 10],
  maj7: [0, 4, 7, 11],
  m7: [0, 3, 7, 10],
  mMaj7: [0, 3, 7, 11],
  m7b5: [0, 3, 6, 10],
  dim: [0, 3, 6],
  dim7: [0, 3, 6, 9],
  aug: [0, 4, 8],
  aug7: [0, 4, 8, 10],
  '7b5': [0, 4, 6, 10],
  sus2: [0, 2, 7],
  sus4: [0, 5, 7],
  '7sus4': [0, 5, 7, 10],
  '9sus4': [0, 5, 7, 10, 14],
  add9: [0, 4, 7, 14],
  madd9: [0, 3, 7, 14],
  add11: [0, 4, 7, 17],
  '9': [0, 4, 7, 10, 14],
  maj9: [0, 4, 7, 11, 14],
  m9: [0, 3, 7, 10, 14],
  '7b9': [0, 4, 7, 10, 13],
  '7#9': [0, 4, 7, 10, 15],
  '11': [0, 7, 10, 14, 17],
  m11: [0, 3, 7, 10, 14, 17],
  '7#11': [0, 4, 7, 10, 18],
  'maj7#11': [0, 4, 7, 11, 18],
  '13': [0, 4, 7, 10, 14, 21],
  m13: [0, 3, 7, 10, 14, 21],
  maj13: [0, 4, 7, 11, 14, 21],
  '7b13': [0, 4, 7, 10, 20],
}

/** Other spellings that lead sheets use, after accidental signs have been made plain. */
const ALIASES: Readonly<Record<string, string>> = {
  maj: '',
  M: '',
  major: '',
  min: 'm',
  '-': 'm',
  mi: 'm',
  minor: 'm',
  ma7: 'maj7',
  M7: 'maj7',
  '∆': 'maj7',
  '∆7': 'maj7',
  Δ: 'maj7',
  Δ7: 'maj7',
  j7: 'maj7',
  min7: 'm7',
  '-7': 'm7',
  mi7: 'm7',
  min6: 'm6',
  '-6': 'm6',
  ø: 'm7b5',
  ø7: 'm7b5',
  '-7b5': 'm7b5',
  min7b5: 'm7b5',
  'm7-5': 'm7b5',
  º: 'dim',
  '°': 'dim',
  o: 'dim',
  º7: 'dim7',
  '°7': 'dim7',
  o7: 'dim7',
  '+': 'aug',
  '+7': 'aug7',
  '7+': 'aug7',
  '7#5': 'aug7',
  '7-5': '7b5',
  sus: 'sus4',
  '7sus': '7sus4',
  '9sus': '9sus4',
  '2': 'sus2',
  add2: 'add9',
  '6/9': '69',
  mmaj7: 'mMaj7',
  mM7: 'mMaj7',
  minmaj7: 'mMaj7',
  'm(maj7)': 'mMaj7',
  'm/maj7': 'mMaj7',
  min9: 'm9',
  '-9': 'm9',
  ma9: 'maj9',
  M9: 'maj9',
  '7-9': '7b9',
  '7+9': '7#9',
  dom7: '7',
  'm(add9)': 'madd9',
  '(add9)': 'add9',
  '7(b9)': '7b9',
  '7(#9)': '7#9',
  min11: 'm11',
  power: '5',
}

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
  const plain = text
    .trim()
    .replaceAll('♯', '#')
    .replaceAll('♭', 'b')
    .replaceAll('△', '∆')
    .replaceAll('−', '-')
  if (/^(n\.?\s*c\.?|no chord)$/i.test(plain)) return { kind: 'noChord' }
  const match = SYMBOL.exec(plain)
  if (!match) return { kind: 'unknown' }
  const [, step, sign, rest = '', bassStep, bassSign] = match
  const written = rest.replaceAll(' ', '')
  const quality = written in QUALITIES ? written : (ALIASES[written] ?? ALIASES[written.toLowerCase()])
  const intervals = quality === undefined ? undefined : QUALITIES[quality]
  if (quality === undefined || !intervals || !step) return { kind: 'unknown' }
  const bass = bassStep ? readName(bassStep, bassSign) : undefined
  return {
    kind: 'chord',
    chord: { root: readName(step, sign), quality, intervals, ...(bass ? { bass } : {}) },
  }
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
