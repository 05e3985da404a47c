import { namedTunings, setupOf, type InstrumentKind, type Setup } from '@velvet-porch/core/instrument'
import {
  LEVELS,
  SOLO_STYLES,
  USUAL_SCHOOL,
  type Level,
  type School,
  type SoloStyle,
} from '@velvet-porch/core/document'
import { refusalOf } from '@velvet-porch/core/arrange'

/** What one arrangement of the corpus is made under. */
export interface Condition {
  readonly style: SoloStyle
  readonly level: Level
  readonly instrument: InstrumentKind
  readonly tuning: string
  readonly capo: number
  readonly school: string
}

/** Tunings of the corpus, string 1 first. */
export const TUNINGS: Readonly<Record<string, readonly number[]>> = {
  standard: [64, 59, 55, 50, 45, 40],
  'drop D': [64, 59, 55, 50, 45, 38],
  'D A D G A D': [62, 57, 55, 50, 45, 38],
  'open D': [62, 57, 54, 50, 45, 38],
}

/** Schools of the corpus: each changes one choice of the usual one. */
export const SCHOOLS: Readonly<Record<string, School>> = {
  usual: USUAL_SCHOOL,
  'thumb and index': { ...USUAL_SCHOOL, picking: 'thumbAndIndex' },
  'flat pick, by the beat': { ...USUAL_SCHOOL, picking: 'flatPick', strokes: 'byBeat' },
  'flat pick, alternating': { ...USUAL_SCHOOL, picking: 'flatPick', strokes: 'alternate' },
  'pick and fingers': { ...USUAL_SCHOOL, picking: 'pickAndFingers' },
  'root sometimes': { ...USUAL_SCHOOL, root: 'sometimes' },
  'root never': { ...USUAL_SCHOOL, root: 'never' },
  'in position': { ...USUAL_SCHOOL, hand: 'position' },
  'open strings': { ...USUAL_SCHOOL, hand: 'open' },
  'repeats varied': { ...USUAL_SCHOOL, repeats: 'varied' },
  'harmony above': { ...USUAL_SCHOOL, harmony: 'above' },
}

/** Hands of the corpus that differ from the usual one go with a school of their own. */
export const HANDS = ['usual', 'no barre', 'no little finger', 'two fingers', 'thumb over', 'small'] as const

export function setupFor(
  { instrument, tuning, capo }: Condition,
  hand: (typeof HANDS)[number] = 'usual',
): Setup {
  const tuned = instrument === 'guitar' ? TUNINGS[tuning]! : namedTunings(instrument)[0]!.tuning
  const setup = setupOf(instrument, tuned, { fret: capo })
  const { player } = setup
  const techniques = {
    ...player.techniques,
    ...(hand === 'no barre' ? { barre: false } : {}),
    ...(hand === 'no little finger' ? { littleFinger: false } : {}),
    ...(hand === 'two fingers' ? { fingers: 2 } : {}),
    ...(hand === 'thumb over' ? { thumbOver: true } : {}),
  }
  const share = hand === 'small' ? 0.85 : 1
  const spans = Object.fromEntries(Object.entries(player.spans).map(([k, mm]) => [k, mm * share]))
  return { ...setup, player: { ...player, techniques, spans: spans as typeof player.spans } }
}

/** Every style at every level in every tuning, and the mandolin's: what is refused is left out. */
export function allConditions(): Condition[] {
  const found: Condition[] = []
  for (const style of SOLO_STYLES)
    for (const level of LEVELS) {
      Object.keys(TUNINGS).forEach((tuning) =>
        found.push({ style, level, instrument: 'guitar', tuning, capo: 0, school: 'usual' }),
      )
      found.push({ style, level, instrument: 'mandolin', tuning: 'standard', capo: 0, school: 'usual' })
    }
  return found.filter(isAsked)
}

const isAsked = ({ style, level, instrument }: Condition) =>
  refusalOf(style, level, { strings: instrument === 'guitar' ? 6 : 4 }) === undefined

/**
 * A sample in which every pair of choices of two different kinds comes up at least once (as far as it is not refused):
 * the next row is always the one that covers the most pairs that are still missing.
 */
export function pairwise(): (Condition & { readonly hand: (typeof HANDS)[number] })[] {
  const factors = {
    style: SOLO_STYLES,
    level: LEVELS,
    place: ['guitar standard', 'guitar drop D', 'guitar D A D G A D', 'guitar open D', 'mandolin standard'],
    capo: [0, 2, 5],
    school: Object.keys(SCHOOLS),
    hand: HANDS,
  } as const
  const names = Object.keys(factors) as (keyof typeof factors)[]
  const rows: {
    row: Record<string, string | number>
    condition: Condition & { hand: (typeof HANDS)[number] }
  }[] = []
  const missing = new Set<string>()
  const pairsOf = (row: Record<string, string | number>) =>
    names.flatMap((a, i) => names.slice(i + 1).map((b) => `${a}=${row[a]}&${b}=${row[b]}`))
  const every: Record<string, string | number>[] = []
  const grow = (i: number, row: Record<string, string | number>) => {
    if (i === names.length) {
      every.push(row)
      return
    }
    for (const value of factors[names[i]!]) grow(i + 1, { ...row, [names[i]!]: value })
  }
  grow(0, {})
  const asked = every.filter((row) => isAsked(conditionOf(row)))
  for (const row of asked) for (const pair of pairsOf(row)) missing.add(pair)
  let at = 0
  while (missing.size > 0) {
    let best: Record<string, string | number> | undefined
    let most = 0
    // Not every row is looked at each time: a stride through them is enough for a good sample.
    for (let k = 0; k < 3000; k++) {
      at = (at + 7919) % asked.length
      const row = asked[at]!
      const covers = pairsOf(row).filter((p) => missing.has(p)).length
      if (covers > most) {
        most = covers
        best = row
      }
    }
    if (!best) best = asked.find((row) => pairsOf(row).some((p) => missing.has(p)))!
    for (const pair of pairsOf(best)) missing.delete(pair)
    rows.push({
      row: best,
      condition: { ...conditionOf(best), hand: best['hand'] as (typeof HANDS)[number] },
    })
  }
  return rows.map((r) => r.condition)
}

function conditionOf(row: Record<string, string | number>): Condition {
  const place = String(row['place'])
  const instrument = place.startsWith('mandolin') ? 'mandolin' : 'guitar'
  return {
    style: row['style'] as SoloStyle,
    level: row['level'] as Level,
    instrument,
    tuning: place.slice(instrument.length + 1),
    capo: Number(row['capo']),
    school: String(row['school']),
  }
}
