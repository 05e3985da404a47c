import { LIMITS, METRE_UNITS } from '../../document/limits.ts'
import type { Jump } from '../../document/tune.ts'
import { MODES, type Mode } from '../../music/pitch/key.ts'
import { STEPS, type NoteName, type Pitch, type Step } from '../../music/pitch/pitch.ts'
import type { Metre } from '../../music/time/metre.ts'
import type { KindDegree } from '../../output/musicxml/chordKinds.ts'
import { children, numberIn, textIn, type XmlElement } from './xmlTree.ts'

/** Denominators of note heads by the names of values. */
export const BASES: Readonly<Record<string, number>> = {
  long: 1,
  breve: 1,
  whole: 1,
  half: 2,
  quarter: 4,
  eighth: 8,
  '16th': 16,
  '32nd': 32,
  '64th': 64,
  '128th': 128,
  '256th': 128,
}

/** True for a ratio that parts time otherwise than by halves. */
export const isRatio = (r: {
  readonly actual: number | undefined
  readonly normal: number | undefined
}): r is { actual: number; normal: number } =>
  [r.actual, r.normal].every((n) => n !== undefined && Number.isInteger(n) && n >= 1 && n <= LIMITS.tuplet) &&
  r.actual !== r.normal

const isStep = (text: string | undefined): text is Step => (STEPS as readonly string[]).includes(text ?? '')

/** A pitch as it is written; undefined where it is none that an instrument has. */
export function pitchOf(element: XmlElement | undefined): Pitch | undefined {
  const step = textIn(element, 'step')
  const octave = numberIn(element, 'octave')
  if (!isStep(step) || octave === undefined || !Number.isInteger(octave)) return undefined
  if (octave < LIMITS.lowestOctave || octave > LIMITS.highestOctave) return undefined
  return { step, alter: Math.max(-2, Math.min(2, Math.round(numberIn(element, 'alter') ?? 0))), octave }
}

/** The root or bass of a chord. */
export function nameOf(element: XmlElement | undefined, prefix: 'root' | 'bass'): NoteName | undefined {
  const step = textIn(element, `${prefix}-step`)
  return isStep(step) ? { step, alter: Math.round(numberIn(element, `${prefix}-alter`) ?? 0) } : undefined
}

/** A degree of a chord; none where it is not understood. */
export function degreeOf(element: XmlElement): KindDegree[] {
  const value = numberIn(element, 'degree-value')
  const type = textIn(element, 'degree-type')
  if (value === undefined || (type !== 'add' && type !== 'alter' && type !== 'subtract')) return []
  return [{ value, alter: numberIn(element, 'degree-alter') ?? 0, type }]
}

/** A metre; several in one are added up, as are the parts of "3+2". */
export function metreOf(time: XmlElement): Metre | undefined {
  const beats = children(time, 'beats').map((b) => b.text.split('+').reduce((sum, p) => sum + Number(p), 0))
  const units = children(time, 'beat-type').map((b) => Number(b.text))
  if (beats.length === 0 || beats.length !== units.length) return undefined
  const den = Math.max(...units)
  const num = beats.reduce((sum, b, i) => sum + (b * den) / units[i]!, 0)
  if (!Number.isInteger(num) || num < 1 || num > LIMITS.metreBeats) return undefined
  if (!(METRE_UNITS as readonly number[]).includes(den)) return undefined
  const symbol = time.attributes['symbol']
  return { num, den, ...(symbol === 'common' || symbol === 'cut' ? { display: symbol } : {}) }
}

/** A mode as files name it; major where they do not. */
export function modeOf(text: string | undefined): Mode {
  if (text === 'aeolian') return 'minor'
  return MODES.find((m) => m === text) ?? 'major'
}

const JUMPS: readonly (readonly [RegExp, Jump])[] = [
  [/^d\.?\s*c\.?\s*al\s+fine/i, 'daCapoAlFine'],
  [/^d\.?\s*c\.?\s*al\s+coda/i, 'daCapoAlCoda'],
  [/^d\.?\s*s\.?\s*al\s+fine/i, 'dalSegnoAlFine'],
  [/^d\.?\s*s\.?\s*al\s+coda/i, 'dalSegnoAlCoda'],
  [/^(?:d\.\s*c\.?|da\s+capo)$/i, 'daCapo'],
  [/^(?:d\.\s*s\.?|dal\s+segno)$/i, 'dalSegno'],
]

/** The jump that words say, where they say one. */
export const jumpOf = (words: string): Jump | undefined =>
  JUMPS.find(([pattern]) =>
    pattern.test(
      words
        .trim()
        .replace(/^da\s+capo\s+al/i, 'D.C. al')
        .replace(/^dal\s+segno\s+al/i, 'D.S. al'),
    ),
  )?.[1]

/** Quarter notes a minute of a metronome mark. */
export function metronomeBpm(element: XmlElement): number | undefined {
  const per = Number(/[\d.]+/.exec(textIn(element, 'per-minute') ?? '')?.[0] ?? NaN)
  const base = BASES[textIn(element, 'beat-unit') ?? '']
  if (!Number.isFinite(per) || base === undefined) return undefined
  const dots = Math.min(2, children(element, 'beat-unit-dot').length)
  return (per * 4 * (2 - 2 ** -dots)) / base
}
