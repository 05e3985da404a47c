import type { Region } from '../../document/arrangement.ts'
import { splitRegion } from '../../document/regions.ts'
import { LEVELS, type Level } from '../../document/style.ts'
import type { TuneDoc } from '../../document/tune.ts'

/** Sections that are played full by their name, in the languages that songs are read in. */
const FULL = /chorus|refrain|refr[aã]o|estribillo|koro|tag/i

/** Levels by which the thin sections lie under the chosen one. No source. */
const THINNER = 2

/** Chord melody has no level below this. */
const THINNEST_CHORDS = 2

/**
 * A tune that builds: its verses thin, its chorus full. Without a chorus the first of its sections is thin, those after it fuller, the
 * last as full as was chosen. Sections are cut where the tune has them.
 */
export function buildUp(tune: Pick<TuneDoc, 'measures' | 'sections'>, regions: readonly Region[]): Region[] {
  const cut = tune.sections.reduce<Region[]>((all, s) => splitRegion(tune, all, s.measure), [...regions])
  const nameOf = new Map(tune.sections.map((s) => [s.measure, s.name]))
  const hasChorus = tune.sections.some((s) => FULL.test(s.name))
  return cut.map((region, i) => {
    const isFull = hasChorus ? FULL.test(nameOf.get(region.from) ?? '') : false
    const lower = isFull ? 0 : hasChorus ? THINNER : i === cut.length - 1 ? 0 : i === 0 ? THINNER : 1
    const least = region.style === 'chord-melody' ? THINNEST_CHORDS : LEVELS[0]
    const level = Math.max(least, region.level - lower) as Level
    return region.given ? region : { ...region, level }
  })
}
