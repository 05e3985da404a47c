import { STEPS, STEP_SEMITONES, mod12, pitchClass, type NoteName, type PitchClass } from '../pitch/pitch.ts'
import { chordPitchClasses, type ChordReading } from './chordSymbol.ts'

/**
 * Which tones a shape of the chord must sound. Each group of `essential` holds intervals (semitones above the root)
 * of which one at least must be there; `optional` ones may be left out.
 */
export interface ToneNeeds {
  readonly essential: readonly (readonly number[])[]
  readonly optional: readonly number[]
  /** Tones outside the symbol's own that custom lets in: the third of an eleventh chord, the eleventh of a thirteenth. */
  readonly admitted: readonly number[]
}

/**
 * What of a chord cannot be left out: third (or its suspension), sixth or seventh, an altered fifth, the highest
 * tension and every altered one. The perfect fifth goes first, then lower tensions; with five tones or more the root
 * may be left to a bass player. Common practice, no source.
 */
export function toneNeeds(chord: ChordReading): ToneNeeds {
  const { intervals } = chord
  const essential: number[][] = []
  const optional: number[] = []
  if (chord.quality.includes('alt')) {
    essential.push([4], [10], [13, 15, 18, 20])
    return { essential, optional: [0, 13, 15, 18, 20], admitted: [] }
  }
  const highest = Math.max(...intervals)
  for (const interval of intervals) {
    if (interval === 0) {
      if (intervals.length >= 5) optional.push(0)
      else essential.push([0])
    } else if (interval === 7) {
      if (intervals.length >= 4) optional.push(7)
      else essential.push([7])
    } else if ((interval === 14 || interval === 17) && interval !== highest) optional.push(interval)
    else essential.push([interval])
  }
  const admitted: number[] = []
  if (/^(?:m|maj|mMaj)?13/.test(chord.quality) && !intervals.includes(18)) admitted.push(17)
  if (chord.quality.startsWith('11')) admitted.push(4)
  return { essential, optional, admitted }
}

const DEGREES: Readonly<Record<number, string>> = {
  0: '1',
  2: '2',
  3: 'b3',
  4: '3',
  5: '4',
  6: 'b5',
  7: '5',
  8: '#5',
  9: '6',
  10: 'b7',
  11: '7',
  13: 'b9',
  14: '9',
  15: '#9',
  17: '11',
  18: '#11',
  20: 'b13',
  21: '13',
}

const STEP_OF_DEGREE: Readonly<Record<string, number>> = {
  1: 0,
  2: 1,
  3: 2,
  4: 3,
  5: 4,
  6: 5,
  7: 6,
  9: 1,
  11: 3,
  13: 5,
}

const FOREIGN_DEGREES = ['1', 'b2', '2', 'b3', '3', '4', 'b5', '5', 'b6', '6', 'b7', '7'] as const

/**
 * The degree of a pitch class in a chord, as the chord's own name counts it.
 * @example degreeIn(C9, 2) // '9'
 */
export function degreeIn(chord: ChordReading, pc: PitchClass): string {
  const above = mod12(pc - pitchClass(chord.root))
  const own = chord.intervals.find((i) => mod12(i) === above)
  if (own === undefined) return FOREIGN_DEGREES[above]!
  return own === 9 && chord.quality.startsWith('dim7') ? 'bb7' : DEGREES[own]!
}

/**
 * Spells a pitch class by its degree in the chord: the third of C minor is E flat, never D sharp.
 * A slash bass keeps the spelling that the symbol gives it.
 */
export function spellInChord(chord: ChordReading, pc: PitchClass): NoteName {
  if (chord.bass && pitchClass(chord.bass) === mod12(pc)) return chord.bass
  const degree = degreeIn(chord, pc).replace(/[b#]/g, '')
  const step = STEPS[(STEPS.indexOf(chord.root.step) + STEP_OF_DEGREE[degree]!) % 7]!
  const away = mod12(pc - STEP_SEMITONES[step] + 6) - 6
  return { step, alter: away }
}

/** The chord's tones as names, root first; a foreign slash bass last. */
export function chordNames(chord: ChordReading): NoteName[] {
  return chordPitchClasses(chord).map((pc) => spellInChord(chord, pc))
}
