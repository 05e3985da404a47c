import { alternativesFor, arranging, newMemory, wholeTune, type Arranged } from '@velvet-porch/core/arrange'
import { type Level, type Style, type TastePrices, type TuneDoc } from '@velvet-porch/core/document'
import { guitarSetup, type Setup } from '@velvet-porch/core/instrument'
import {
  fitTaste,
  offeredWays,
  priceOfCounts,
  type Comparison,
  type OfferedWay,
} from '@velvet-porch/core/taste'
import { finish } from '@velvet-porch/core/turns'

/** In what a tune is arranged. */
export interface Condition {
  readonly style: Style
  readonly level: Level
  readonly thumbOver: boolean
}

const setupOf = ({ thumbOver }: Condition): Setup => {
  const setup = guitarSetup()
  return thumbOver
    ? {
        ...setup,
        player: { ...setup.player, techniques: { ...setup.player.techniques, thumbOver: true } },
      }
    : setup
}

/** A tune as it is arranged with some prices; undefined where it cannot be. */
export function arrangedWith(tune: TuneDoc, condition: Condition, prices: TastePrices) {
  const setup = setupOf(condition)
  const taste =
    Object.keys(prices).length > 0 ? { taste: { name: 'simulated', prices, shapes: [] } } : undefined
  const regions = wholeTune(tune, condition.style, condition.level).map((r) => ({ ...r, ...taste }))
  try {
    const arranged = finish(arranging(tune, setup, regions, { memory: newMemory() }))
    return { arranged, setup, regions }
  } catch {
    return undefined
  }
}

/** Who chooses among ways that are offered, by index (0 leaves what stands there), and whether a fill is taken out. */
export interface Chooser {
  readonly way: (ways: readonly OfferedWay[]) => number
  readonly takesOutFills: boolean
}

/** Ways that are offered for a moment. */
const OFFERED = 8
/** Rounds of corrections: each on pages that are made with what was learned so far, as a teacher meets them. */
const ROUNDS = 6

/** Somebody who has corrections left looks through the tunes again, at the moments that were passed over. */
const PASSES = [1, 0] as const

/**
 * Corrections of tunes as they come: at every other moment the ways that the app offers are looked at, and another one is taken where
 * it is liked better; at the other moments too, where that came to fewer than there may be.
 * @param most corrections in all
 */
export function corrections(
  tunes: readonly TuneDoc[],
  condition: Condition,
  chooser: Chooser,
  most: number,
): Comparison[] {
  const found: Comparison[] = []
  for (const pass of PASSES) {
    const left = most - found.length
    for (let round = 0; round < ROUNDS && left > 0; round++) {
      const { prices } = fitTaste(found)
      const end = most - left + Math.round((left * (round + 1)) / ROUNDS)
      const own = tunes.filter((_, i) => i % ROUNDS === round)
      own.forEach((tune, i) => {
        const upTo = found.length + Math.ceil((end - found.length) / (own.length - i))
        const page = arrangedWith(tune, condition, prices)
        if (page) found.push(...correctionsOf(tune, page, chooser, prices, upTo - found.length, pass))
      })
    }
  }
  return found
}

function correctionsOf(
  tune: TuneDoc,
  { arranged, setup }: NonNullable<ReturnType<typeof arrangedWith>>,
  chooser: Chooser,
  prices: TastePrices,
  most: number,
  pass: (typeof PASSES)[number],
): Comparison[] {
  const { plan, solution } = arranged
  const found: Comparison[] = []
  for (let t = pass; t < plan.slices.length; t += PASSES.length) {
    if (found.length >= most) break
    const at = { tune: tune.id, title: tune.title, measure: plan.slices[t]!.measure, day: '2026-01-01' }
    const candidate = solution.sets[t]!.list[solution.choice[t]!]!
    if (
      chooser.takesOutFills &&
      candidate.inner !== 0 &&
      plan.slices[t]!.innerOnset &&
      prices.fill === undefined
    ) {
      found.push({ kind: 'leftOut', at })
      continue
    }
    const ways = offeredWays(
      alternativesFor(tune, setup, plan, solution, { from: t, to: t + 1 }, OFFERED),
      prices,
    )
    const taken = ways.length > 1 ? chooser.way(ways) : 0
    if (taken > 0) found.push({ kind: 'way', at, ways, taken })
  }
  return found
}

/** Somebody who takes what is cheapest to them. */
export const byTaste = (prices: TastePrices): Chooser => ({
  way: (ways) => {
    const costs = ways.map((w) => w.price + priceOfCounts(w.counts, prices))
    return costs.indexOf(Math.min(...costs))
  },
  takesOutFills: (prices.fill ?? 0) >= DEAR_FILL,
})

/** A fill that costs more than this is taken out: it is what leaving one out costs. */
const DEAR_FILL = 3

/** Somebody who takes any other way. */
export const atRandom = (random: () => number): Chooser => ({
  way: (ways) => 1 + Math.floor(random() * (ways.length - 1)),
  takesOutFills: false,
})

/** Share of the notes of a page that another has at the same place under the same finger. */
export function agreement(a: Arranged, b: Arranged): { same: number; all: number } {
  const keyOf = (n: Arranged['layer']['notes'][number]) =>
    `${n.id} ${n.place.string} ${n.place.fret} ${String(n.left)}`
  const own = new Set(a.layer.notes.map(keyOf))
  const same = b.layer.notes.filter((n) => own.has(keyOf(n))).length
  return { same, all: Math.max(a.layer.notes.length, b.layer.notes.length) }
}
