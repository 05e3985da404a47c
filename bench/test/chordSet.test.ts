import { describe, expect, it } from 'vitest'
import { fingeringReport, rankingReport } from '../src/chordSet/figures.ts'
import { fittingHalf, readChordSet, transposedShape } from '../src/chordSet/chordSet.ts'

/**
 * The shape finder against `@tombatossals/chords-db` 0.5.1 (MIT): hand-made positions, audited first. The floors are
 * the aims of the shape finder; measured figures stand in docs/shapes.md.
 */
describe('against the open chord data set', () => {
  it('the split keeps a shape and its transpositions in one half, and halves the set', () => {
    const positions = readChordSet()
    expect(positions.length).toBe(2069)
    const inHalf = fittingHalf(positions)
    const sides = new Map<string, boolean>()
    for (const p of positions) {
      const shape = transposedShape(p.frets)
      expect(sides.get(shape) ?? inHalf(p)).toBe(inHalf(p))
      sides.set(shape, inHalf(p))
    }
    const share = positions.filter(inHalf).length / positions.length
    expect(share).toBeGreaterThan(0.45)
    expect(share).toBeLessThan(0.55)
  })

  it('fingers shapes of the half that its prices never saw as people do', () => {
    const { heldOut } = fingeringReport()
    expect(heldOut.exact).toBeGreaterThanOrEqual(0.87)
    expect(heldOut.firstTwo).toBeGreaterThanOrEqual(0.95)
    expect(heldOut.byNote).toBeGreaterThanOrEqual(0.95)
  })

  it('finds the positions, and puts first what people put first', () => {
    const report = rankingReport()
    expect(report.excluded.length).toBeLessThan(60)
    expect(report.bySound.recall).toBeGreaterThanOrEqual(0.999)
    expect(report.byName).toBeGreaterThanOrEqual(0.98)
    expect(report.shownByRow).toBeGreaterThanOrEqual(0.8)
    for (const half of [report.heldOut, report.both]) {
      expect(half.common.firstRow).toBeGreaterThanOrEqual(0.75)
      expect(half.common.firstThreeRows).toBeGreaterThanOrEqual(0.92)
      expect(half.all.firstRow).toBeGreaterThanOrEqual(0.48)
      expect(half.all.firstThreeRows).toBeGreaterThanOrEqual(0.74)
    }
  })
})
