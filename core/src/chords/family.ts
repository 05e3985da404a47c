import type { ChordReading } from '../music/harmony/chordSymbol.ts'
import type { LeftFinger } from '../instrument/hand.ts'
import type { Setup } from '../instrument/setup.ts'
import { mod12, pitchClass } from '../music/pitch/pitch.ts'

/** The five open forms, as major chords at the nut, string 6 to 1, and the string of their root. */
const FORMS = [
  { form: 'E', rootString: 6, frets: [0, 2, 2, 1, 0, 0] },
  { form: 'A', rootString: 5, frets: [0, 0, 2, 2, 2, 0] },
  { form: 'D', rootString: 4, frets: [2, 0, 0, 2, 3, 2] },
  { form: 'C', rootString: 5, frets: [3, 3, 2, 0, 1, 0] },
  { form: 'G', rootString: 6, frets: [3, 2, 0, 0, 0, 3] },
] as const

/**
 * The family of a shape: one of the five open forms moved along the neck (`E` … `G`), the sixth-string form with the
 * low root under the little finger and string 5 left out, one finger straight across, or none of these.
 */
export type Family =
  | { readonly kind: 'form'; readonly form: (typeof FORMS)[number]['form']; readonly up: number }
  | { readonly kind: 'sixthString'; readonly up: number }
  | { readonly kind: 'across'; readonly fret: number }
  | { readonly kind: 'own' }

/** Intervals between neighbouring strings of the guitar's usual tuning, from string 1 down. */
const FOURTHS = [5, 4, 5, 5, 5]

/** A form is recognised when its frets are off by no more than this on average, and nowhere by more than `FARTHEST`. */
const NEAR = 0.9
const FARTHEST = 2

/**
 * Tells the family of a shape. The five forms belong to guitars tuned in the usual intervals; a slash bass is not
 * counted against a form.
 * @param frets string 1 first, counted from the capo
 */
export function familyOf(
  setup: Setup,
  chord: ChordReading,
  frets: readonly (number | null)[],
  fingers: readonly LeftFinger[],
): Family {
  const across = straightAcross(frets)
  const usual =
    setup.tuning.length === 6 &&
    setup.capo.every((c) => c === setup.capo[0]) &&
    FOURTHS.every((i, s) => setup.tuning[s]! - setup.tuning[s + 1]! === i)
  if (!usual) return across === undefined ? { kind: 'own' } : { kind: 'across', fret: across }
  const lowest = frets.findLastIndex((f) => f !== null)
  const skip = chord.bass ? lowest : -1
  let best: { form: (typeof FORMS)[number]['form']; up: number; off: number } | undefined
  for (const { form, rootString, frets: template } of FORMS) {
    const openRoot = setup.tuning[rootString - 1]! + setup.capo[rootString - 1]!
    const rootFret = mod12(pitchClass(chord.root) - openRoot)
    for (const at of [rootFret - 12, rootFret, rootFret + 12]) {
      const up = at - template[6 - rootString]!
      if (up < 0) continue
      const off = offFrom(template, up, frets, skip)
      if (off !== undefined && (!best || off < best.off)) best = { form, up, off }
    }
  }
  if (!best) return across === undefined ? { kind: 'own' } : { kind: 'across', fret: across }
  if (best.form === 'G' && best.up > 0 && frets[5] !== null && frets[4] === null && fingers[5] === 4)
    return { kind: 'sixthString', up: best.up }
  return { kind: 'form', form: best.form, up: best.up }
}

function offFrom(
  template: readonly number[],
  up: number,
  frets: readonly (number | null)[],
  skip: number,
): number | undefined {
  let sum = 0
  let count = 0
  for (let i = 0; i < 6; i++) {
    const fret = frets[i]!
    if (fret === null || i === skip) continue
    const off = Math.abs(fret - (template[5 - i]! + up))
    if (off > FARTHEST) return undefined
    sum += off
    count++
  }
  return count >= 3 && sum / count <= NEAR ? sum / count : undefined
}

function straightAcross(frets: readonly (number | null)[]): number | undefined {
  const sounding = frets.filter((f): f is number => f !== null)
  return sounding.length > 2 && sounding.every((f) => f === sounding[0]) ? sounding[0] : undefined
}

/** A short id of a family for files: `E-form`, `sixth-string`, `across`, `own`. */
export function familyId(family: Family): string {
  if (family.kind === 'form') return `${family.form}-form`
  return family.kind === 'sixthString' ? 'sixth-string' : family.kind
}
