import { readChordSymbol, type ChordReading } from '../../music/harmony/chordSymbol.ts'
import { mod12, nameText, type NoteName } from '../../music/pitch/pitch.ts'

/**
 * Kinds of chords as MusicXML 4.0 names them (its `kind-value` type, from memory), each with what follows the root in a symbol.
 */
export const KIND_QUALITIES: Readonly<Record<string, string>> = {
  major: '',
  minor: 'm',
  augmented: 'aug',
  diminished: 'dim',
  dominant: '7',
  'major-seventh': 'maj7',
  'minor-seventh': 'm7',
  'diminished-seventh': 'dim7',
  'augmented-seventh': 'aug7',
  'half-diminished': 'm7b5',
  'major-minor': 'mMaj7',
  'major-sixth': '6',
  'minor-sixth': 'm6',
  'dominant-ninth': '9',
  'major-ninth': 'maj9',
  'minor-ninth': 'm9',
  'dominant-11th': '11',
  'major-11th': 'maj11',
  'minor-11th': 'm11',
  'dominant-13th': '13',
  'major-13th': 'maj13',
  'minor-13th': 'm13',
  'suspended-second': 'sus2',
  'suspended-fourth': 'sus4',
  power: '5',
}

/** A degree that is added to a kind, altered in it or left out: the so-manieth step of the major scale, raised or lowered. */
export interface KindDegree {
  readonly value: number
  readonly alter: number
  readonly type: 'add' | 'alter' | 'subtract'
}

/** A chord as a kind with degrees. */
export interface ChordKind {
  readonly kind: string
  readonly degrees: readonly KindDegree[]
}

/** Semitones of the degrees of a major scale, the ninth, eleventh and thirteenth an octave up; the seventh is minor, as in symbols. */
const DEGREE_SEMITONES: Readonly<Record<number, number>> = {
  1: 0,
  2: 14,
  3: 4,
  4: 5,
  5: 7,
  6: 9,
  7: 10,
  9: 14,
  11: 17,
  13: 21,
}

const degreeOf = (interval: number): Omit<KindDegree, 'type'> => {
  const found = [9, 11, 13, 5, 6, 7, 3, 1].flatMap((value) =>
    [0, -1, 1]
      .filter((alter) => DEGREE_SEMITONES[value]! + alter === interval)
      .map((alter) => ({ value, alter })),
  )
  return found.sort((a, b) => Math.abs(a.alter) - Math.abs(b.alter))[0] ?? { value: 9, alter: 0 }
}

/** The intervals of each kind, in semitones above the root. */
const KINDS: readonly { readonly kind: string; readonly intervals: readonly number[] }[] = Object.entries(
  KIND_QUALITIES,
).map(([kind, quality]) => {
  const reading = readChordSymbol(`C${quality}`)
  return { kind, intervals: reading.kind === 'chord' ? reading.chord.intervals : [] }
})

/**
 * A chord as the nearest kind, with the degrees in which it differs from it.
 * @example kindOfChord(chordFrom('C7b9')) // { kind: 'dominant', degrees: [{ value: 9, alter: -1, type: 'add' }] }
 */
export function kindOfChord({ intervals }: Pick<ChordReading, 'intervals'>): ChordKind {
  const nearest = KINDS.map(({ kind, intervals: own }) => ({
    kind,
    gone: own.filter((i) => !intervals.includes(i)),
    added: intervals.filter((i) => !own.includes(i)),
  })).sort((a, b) => a.gone.length * 2 + a.added.length - (b.gone.length * 2 + b.added.length))[0]!
  return {
    kind: nearest.kind,
    degrees: [
      ...nearest.gone.map((i): KindDegree => ({ ...degreeOf(i), type: 'subtract' })),
      ...nearest.added.map((i): KindDegree => ({ ...degreeOf(i), type: 'add' })),
    ],
  }
}

/**
 * The chord that a kind with degrees names; undefined where it has no symbol.
 * @param text what the file prints after the root, where it says so: taken where it names the same notes
 */
export function chordOfKind(
  root: NoteName,
  { kind, degrees }: ChordKind,
  text: string | undefined,
  bass: NoteName | undefined,
): ChordReading | undefined {
  const quality = KIND_QUALITIES[kind]
  const read = (after: string): ChordReading | undefined => {
    const reading = readChordSymbol(`${nameText(root)}${after}${bass ? `/${nameText(bass)}` : ''}`)
    return reading.kind === 'chord' ? reading.chord : undefined
  }
  const printed = text === undefined ? undefined : read(text)
  if (quality === undefined) return printed
  const wanted = withDegrees(read(quality)?.intervals ?? [], degrees)
  const named = [printed, read(quality + degreesText(quality, degrees))].find(
    (c) => c && sameNotes(c.intervals, wanted),
  )
  return named ?? read(quality)
}

function withDegrees(intervals: readonly number[], degrees: readonly KindDegree[]): number[] {
  let own = [...intervals]
  for (const { value, alter, type } of degrees) {
    const plain = DEGREE_SEMITONES[value]
    if (plain === undefined) continue
    if (type === 'subtract') own = own.filter((i) => mod12(i) !== mod12(plain + alter))
    else if (type === 'alter') own = [...own.filter((i) => mod12(i) !== mod12(plain)), plain + alter]
    else own.push(plain + alter)
  }
  return own
}

const sameNotes = (a: readonly number[], b: readonly number[]): boolean => {
  const classes = (list: readonly number[]) => [...new Set(list.map(mod12))].sort((x, y) => x - y).join()
  return classes(a) === classes(b)
}

function degreesText(quality: string, degrees: readonly KindDegree[]): string {
  return degrees
    .map(({ value, alter, type }) => {
      if (type === 'subtract') return `no${value}`
      const sign = alter < 0 ? 'b' : alter > 0 ? '#' : ''
      return type === 'add' && (sign === '' || !/\d/.test(quality)) ? `add${sign}${value}` : `${sign}${value}`
    })
    .join('')
}
