import { knownIn } from '../invariant.ts'
import type { Region } from './arrangement.ts'
import type { Id } from './ids.ts'
import { usualOrnament, type Ornament } from './style.ts'
import type { TasteInForce } from './taste.ts'
import type { TuneDoc } from './tune.ts'

/** What of a region may be chosen: all but where it lies. */
export type RegionChoice = Omit<Region, 'from' | 'to'>

type Measures = Pick<TuneDoc, 'measures'>

/**
 * The region of each measure: they lie one after the other, so that an end whose measure is gone is where the neighbour
 * begins. A measure without a region takes that of the measure before it.
 */
function choices(tune: Measures, regions: readonly Region[]): Region[] {
  const at = new Map(tune.measures.map((m, i) => [m.id, i]))
  const own: (Region | undefined)[] = tune.measures.map(() => undefined)
  let done = -1
  regions.forEach((region, k) => {
    const next = regions.slice(k + 1).find((r) => at.has(r.from))
    const from = at.get(region.from) ?? done + 1
    const to = at.get(region.to) ?? (next ? knownIn(at, next.from) : tune.measures.length) - 1
    for (let i = from; i <= to; i++) own[i] = region
    done = Math.max(done, to)
  })
  let last = own.find((r) => r) ?? regions[0]!
  return own.map((r) => (last = r ?? last))
}

/**
 * Regions that cover every measure of a tune once, in order: measures that are gone are left out, new ones belong to
 * the region before them.
 */
export function tidyRegions(tune: Measures, regions: readonly Region[]): Region[] {
  return joined(tune, choices(tune, regions))
}

function joined(tune: Measures, own: readonly Region[]): Region[] {
  const tidy: Region[] = []
  tune.measures.forEach((m, i) => {
    const last = tidy.at(-1)
    if (last && own[i] === own[i - 1]) tidy[tidy.length - 1] = { ...last, to: m.id }
    else tidy.push({ ...own[i]!, from: m.id, to: m.id })
  })
  return tidy
}

/** Index of the region that a measure lies in. */
export function regionAt(tune: Measures, regions: readonly Region[], measure: Id): number {
  const index = tune.measures.findIndex((m) => m.id === measure)
  return regions.findIndex((r) => {
    const from = tune.measures.findIndex((m) => m.id === r.from)
    const to = tune.measures.findIndex((m) => m.id === r.to)
    return index >= from && index <= to
  })
}

/** The region that holds a measure cut in two: the second part starts with the measure. */
export function splitRegion(tune: Measures, regions: readonly Region[], measure: Id): Region[] {
  const at = regionAt(tune, regions, measure)
  const region = regions[at]
  if (!region || region.from === measure) return [...regions]
  const before = tune.measures[tune.measures.findIndex((m) => m.id === measure) - 1]!
  return [
    ...regions.slice(0, at),
    { ...region, to: before.id },
    { ...region, from: measure },
    ...regions.slice(at + 1),
  ]
}

/** A region joined to the one before it, whose choice it takes. */
export function joinRegion(regions: readonly Region[], index: number): Region[] {
  const [before, region] = [regions[index - 1], regions[index]]
  if (!before || !region) return [...regions]
  return [...regions.slice(0, index - 1), { ...before, to: region.to }, ...regions.slice(index + 1)]
}

/** Some measures (by index, inclusive) to be filled round what was typed in them: their tab is no longer just given. */
export function filledRound(tune: Measures, regions: readonly Region[], from: number, to: number): Region[] {
  const start = tune.measures[from]?.id
  const after = tune.measures[to + 1]?.id
  let cut = start === undefined ? [...regions] : splitRegion(tune, regions, start)
  if (after !== undefined) cut = splitRegion(tune, cut, after)
  const inside = new Set(tune.measures.slice(from, to + 1).map((m) => m.id))
  return cut.map((region) => {
    if (!region.given || !inside.has(region.from)) return region
    const { given: _, ...free } = region
    return free
  })
}

/** The measures whose tab is given. */
export function givenMeasures(tune: Measures, regions: readonly Region[]): Set<Id> {
  if (!regions.some((r) => r.given)) return new Set()
  const own = choices(tune, regions)
  return new Set(tune.measures.filter((_, i) => own[i]?.given).map((m) => m.id))
}

/** A region with other choices. */
export function withChoice(
  regions: readonly Region[],
  index: number,
  choice: Partial<RegionChoice>,
): Region[] {
  return regions.map((r, i) => (i === index ? { ...r, ...choice } : r))
}

/** The density of ornaments in a section: its own, or the usual one of its level. */
export const ornamentOf = ({ ornament, level }: Pick<Region, 'ornament' | 'level'>): Ornament =>
  ornament ?? usualOrnament(level)

/** Sections as somebody's taste has them; undefined is the house's. To a tab that was given no taste is asked. */
export const toTaste = (regions: readonly Region[], taste: TasteInForce | undefined): Region[] =>
  regions.map(({ taste: _, ...region }) => (taste && !region.given ? { ...region, taste } : region))
