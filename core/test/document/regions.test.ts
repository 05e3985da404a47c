import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  joinRegion,
  regionAt,
  splitRegion,
  tidyRegions,
  withChoice,
  SOLO_STYLES,
  type Region,
} from '../../src/document/index.ts'
import { wholeTune } from '../../src/arrange/index.ts'
import { tuneOfMusic } from '../support/tunes.ts'

const tune = tuneOfMusic('CDEF|GABc|CDEF|GABc|CDEF|GABc|CDEF|C4|]')
const ids = tune.measures.map((m) => m.id)

/** Cuts, joins and choices in any order. */
const step = fc.record({
  kind: fc.constantFrom('cut', 'join', 'choose'),
  at: fc.nat(7),
  style: fc.constantFrom(...SOLO_STYLES),
})

describe('regions', () => {
  it('cover every measure once, in order, whatever is cut, joined and chosen', () => {
    fc.assert(
      fc.property(fc.array(step, { maxLength: 12 }), (steps) => {
        let regions: Region[] = wholeTune(tune, 'drone', 2)
        for (const s of steps) {
          if (s.kind === 'cut') regions = splitRegion(tune, regions, ids[s.at]!)
          else if (s.kind === 'join') regions = joinRegion(regions, s.at)
          else regions = withChoice(regions, s.at % regions.length, { style: s.style })
        }
        const covered = regions.flatMap((r) => ids.slice(ids.indexOf(r.from), ids.indexOf(r.to) + 1))
        expect(covered).toEqual(ids)
        for (const id of ids) {
          const r = regions[regionAt(tune, regions, id)]!
          expect(ids.indexOf(r.from)).toBeLessThanOrEqual(ids.indexOf(id))
          expect(ids.indexOf(r.to)).toBeGreaterThanOrEqual(ids.indexOf(id))
        }
      }),
    )
  })

  it('a cut leaves the choice on both sides; what is joined takes that of the one before', () => {
    const cut = splitRegion(tune, wholeTune(tune, 'arpeggio', 4), ids[3]!)
    expect(cut.map((r) => [r.from, r.to, r.style, r.level])).toEqual([
      [ids[0], ids[2], 'arpeggio', 4],
      [ids[3], ids[7], 'arpeggio', 4],
    ])
    const other = withChoice(cut, 1, { style: 'drone', level: 1 })
    expect(joinRegion(other, 1)).toEqual(wholeTune(tune, 'arpeggio', 4))
  })

  it('are tidied when measures come and go', () => {
    const cut = withChoice(splitRegion(tune, wholeTune(tune, 'arpeggio', 4), ids[3]!), 1, { style: 'drone' })
    const shorter = { measures: tune.measures.filter((_, i) => i !== 3 && i !== 7) }
    expect(tidyRegions(shorter, cut).map((r) => [r.from, r.to, r.style])).toEqual([
      [ids[0], ids[2], 'arpeggio'],
      [ids[4], ids[6], 'drone'],
    ])
    const longer = { measures: [...tune.measures, { ...tune.measures[0]!, id: 'new' }] }
    expect(tidyRegions(longer, cut).at(-1)).toMatchObject({ to: 'new', style: 'drone' })
  })
})
