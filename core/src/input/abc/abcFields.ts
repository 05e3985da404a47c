import { LIMITS, METRE_UNITS } from '../../document/limits.ts'
import { keyOf, type Key, type Mode } from '../../music/pitch/key.ts'
import type { Step } from '../../music/pitch/pitch.ts'
import type { Metre } from '../../music/time/metre.ts'

interface RawMeter {
  readonly type?: string
  readonly value?: readonly { readonly num: string; readonly den?: string }[]
}

interface RawKey {
  readonly root?: string
  readonly acc?: string
  readonly mode?: string
}

const COMMON: Metre = { num: 4, den: 4 }

/** Reads a metre; undefined where it is impossible (a denominator of 0, 3 or 100, a numerator of 0). */
export function readMetre(raw: RawMeter | undefined): Metre | undefined {
  if (!raw) return COMMON
  if (raw.type === 'common_time') return { ...COMMON, display: 'common' }
  if (raw.type === 'cut_time') return { num: 2, den: 2, display: 'cut' }
  const value = raw.value?.[0]
  if (!value) return COMMON
  const num = value.num.split('+').reduce((sum, part) => sum + Number(part), 0)
  const den = Number(value.den ?? 1)
  const possible =
    Number.isInteger(num) &&
    num >= 1 &&
    num <= LIMITS.metreBeats &&
    (METRE_UNITS as readonly number[]).includes(den)
  return possible ? { num, den } : undefined
}

const MODE_NAMES: readonly (readonly [RegExp, Mode])[] = [
  [/^mix/i, 'mixolydian'],
  [/^dor/i, 'dorian'],
  [/^phr/i, 'phrygian'],
  [/^lyd/i, 'lydian'],
  [/^loc/i, 'locrian'],
  [/^(m|min.*|aeo.*)$/i, 'minor'],
]

/** Reads a key; a key of "none" is C major. */
export function readKey(raw: RawKey | undefined): Key {
  const step = raw?.root && /^[A-G]$/.test(raw.root) ? (raw.root as Step) : 'C'
  const alter = raw?.acc === '#' ? 1 : raw?.acc === 'b' ? -1 : 0
  const mode = MODE_NAMES.find(([pattern]) => pattern.test(raw?.mode ?? ''))?.[1] ?? 'major'
  return keyOf({ step, alter }, mode)
}

/** Numbers of an ending label such as "1", "1,3" or "1-3"; empty where it holds none. */
export function readEnding(label: string): number[] {
  const passes: number[] = []
  for (const part of label.split(/[,.]/)) {
    const range = /^\s*(\d+)\s*-\s*(\d+)\s*$/.exec(part)
    const single = /^\s*(\d+)/.exec(part)
    if (range)
      for (let n = Number(range[1]); n <= Math.min(Number(range[2]), LIMITS.passes); n++) passes.push(n)
    else if (single) passes.push(Number(single[1]))
  }
  return [...new Set(passes)].filter((n) => n >= 1 && n <= LIMITS.passes)
}

/** Semitones that a clef adds to the written notes: octave marks, and what a transposing clef says. */
export function clefTranspose(
  clef: { readonly type?: string; readonly transpose?: number } | undefined,
): number {
  const type = clef?.type ?? ''
  const octave = type.endsWith('-8') ? -12 : type.endsWith('+8') ? 12 : 0
  const own = clef?.transpose ?? 0
  return octave + (Number.isInteger(own) && Math.abs(own) <= 48 ? own : 0)
}
