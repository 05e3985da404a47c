import { describe, expect, it } from 'vitest'
import { guitarSetup, pitchAt } from '../../../src/instrument/index.ts'
import { lockOf, type Level, type Style } from '../../../src/document/index.ts'
import { alternativesFor, arranging, wholeTune } from '../../../src/arrange/index.ts'
import { finish } from '../../../src/turns.ts'
import { tuneOfMusic } from '../../support/tunes.ts'

const CASES: readonly (readonly [Style, Level])[] = [
  ['melody-bass', 2],
  ['alternating-bass', 3],
  ['cross-string', 3],
  ['chord-melody', 3],
]

/** A tune without repeats: what is named is then all that is charged. */
const THROUGH = tuneOfMusic('"C"cdec|"F"fedc|"G7"BdgB|"Am"ceAc|"Dm"d2fd|"G7"B2dB|"C"egec|"C"c4|]')

describe('other ways to play an onset or a measure', () => {
  it.each(CASES)(
    '%s %i: really different, cheapest first, and the costs of what changes add up',
    (style, level) => {
      const tune = THROUGH
      const setup = guitarSetup()
      const { plan, solution, layer } = finish(arranging(tune, setup, wholeTune(tune, style, level)))
      const known = new Map(layer.notes.map((n) => [n.id, n]))
      let found = 0
      for (const m of [1, 4, 6]) {
        const [from, to] = [plan.firstSlice[m]!, plan.firstSlice[m + 1]!]
        for (const target of [
          { from, to },
          { from, to: from + 1 },
        ]) {
          const ways = alternativesFor(tune, setup, plan, solution, target)
          const seen = new Set<string>()
          ways.forEach((way, i) => {
            found++
            expect(way.extra).toBeGreaterThanOrEqual(i === 0 ? 0 : ways[i - 1]!.extra)
            expect(way.notes.length).toBeGreaterThan(0)
            for (const n of way.notes) {
              const old = known.get(n.id)
              const moved =
                !old || JSON.stringify([old.place, old.left]) !== JSON.stringify([n.place, n.left])
              expect(moved).toBe(true)
            }
            const key = JSON.stringify(way.notes.map((n) => [n.id, n.place, n.left]))
            expect(seen.has(key)).toBe(false)
            seen.add(key)
            // The reasons are the price: what rises less what falls is what the way costs more. Joins of the played order
            // and rounding of small terms are all that may be missing.
            const sum = way.changes.reduce((total, c) => total + c.cost, 0)
            expect(Math.abs(sum - way.extra)).toBeLessThan(1.5)
          })
        }
      }
      expect(found).toBeGreaterThan(8)
    },
  )

  it('a way that is kept by its locks is what the next solve plays, at the cost that was named', () => {
    const tune = tuneOfMusic('"C"cdec|"F"fedc|"G7"BdgB|"C"c4|]')
    const setup = guitarSetup()
    const regions = wholeTune(tune, 'melody-bass', 2)
    const before = finish(arranging(tune, setup, regions))
    const { plan, solution } = before
    const target = { from: plan.firstSlice[1]!, to: plan.firstSlice[2]! }
    for (const way of alternativesFor(tune, setup, plan, solution, target, 3)) {
      const locks = way.locks.map((l, i) => ({ ...l, id: `lock${i}` }))
      const after = finish(arranging(tune, setup, regions, { locks }))
      for (const n of way.notes) {
        const played = after.layer.notes.find((p) => p.id === n.id)!
        expect([played.place, played.left]).toEqual([n.place, n.left])
      }
      expect(after.solution.cost - solution.cost).toBeCloseTo(way.extra, 4)
    }
  })

  it('the next best is the best of all others: brute force over the candidates of one slice', () => {
    const tune = tuneOfMusic('"C"cdec|"F"fedc|"G7"BdgB|"C"c4|]')
    const setup = guitarSetup()
    const regions = wholeTune(tune, 'melody-bass', 1)
    const { plan, solution, layer } = finish(arranging(tune, setup, regions))
    const slice = plan.firstSlice[1]! + 1
    const note = layer.notes.find(
      (n) => n.role === 'melody' && n.sourceId === plan.melody[plan.slices[slice]!.melody]!.sourceId,
    )!
    const [best] = alternativesFor(tune, setup, plan, solution, { from: slice, to: slice + 1 }, 1)
    let least = Infinity
    for (const string of [1, 2, 3, 4, 5, 6])
      for (let fret = 0; fret <= 12; fret++)
        for (const left of fret === 0 ? ([0] as const) : ([1, 2, 3, 4] as const)) {
          const same = string === note.place.string && fret === note.place.fret && left === note.left
          if (same || pitchAt(setup, { string, fret }) !== pitchAt(setup, note.place)) continue
          const locks = [lockOf('place', 'p', note.id, { string, fret }), lockOf('left', 'f', note.id, left)]
          try {
            const other = finish(arranging(tune, setup, regions, { locks }))
            least = Math.min(least, other.solution.cost - solution.cost)
          } catch {
            // No grip keeps this lock.
          }
        }
    expect(best!.extra).toBeCloseTo(least, 4)
  })
})
