import { groupBy } from 'es-toolkit'
import type { StepHarmony, StepLength } from '../steps/alongside.ts'
import { fill } from './template.ts'
import type { Wording } from './words/wording.ts'

/** What notes are in their chord: "Over G: 1, flat 3 to 3, a sixth". */
export function harmonyText({ chord, degrees, interval }: StepHarmony, { harmony }: Wording): string {
  const said = degrees.map((chain) =>
    chain.map((d) => degreeText(d, harmony)).reduce((from, to) => fill(harmony.to, { from, to })),
  )
  const name = interval === undefined ? undefined : harmony.intervals[interval - 1]
  return fill(harmony.over, { chord, degrees: [...said, ...(name ? [name] : [])].join(', ') })
}

/** A degree in words: "flat 3". */
function degreeText(degree: string, { flat, sharp }: Wording['harmony']): string {
  const number = degree.replace(/[b#]/g, '')
  const signs = [...degree].filter((c) => c === 'b' || c === '#')
  return signs.reduce((text, sign) => fill(sign === 'b' ? flat : sharp, { degree: text }), number)
}

/** How many beats notes last, those of one length together: "Beats: 2 (string 5), ½ (string 2, 1)". */
export function lengthsText(lengths: readonly StepLength[], { lengths: words }: Wording): string {
  const together = Object.values(groupBy(lengths, (l) => beatsText(l.beats)))
  const said = together.map((own) =>
    fill(words.of, { beats: beatsText(own[0]!.beats), strings: own.map((l) => l.string).join(', ') }),
  )
  return fill(words.beats, { lengths: said.join('; ') })
}

const SHARES: readonly (readonly [number, string])[] = [
  [1 / 4, '¼'],
  [1 / 3, '⅓'],
  [1 / 2, '½'],
  [2 / 3, '⅔'],
  [3 / 4, '¾'],
]

/** Beats as a player writes them: 1½, ⅔; odd shares as a decimal. */
function beatsText(beats: number): string {
  const whole = Math.floor(beats + 1e-9)
  const rest = beats - whole
  if (rest < 1e-9) return String(whole)
  const share = SHARES.find(([value]) => Math.abs(value - rest) < 1e-6)?.[1]
  return share === undefined ? String(Number(beats.toFixed(2))).replace('.', ',') : `${whole || ''}${share}`
}
