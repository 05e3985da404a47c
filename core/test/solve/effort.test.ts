import { describe, expect, it } from 'vitest'
import { effortOf, guitarSetup, type Level } from '../../src/index.ts'
import { arrangeTune, CORPUS, tuneOfMusic } from '../support/tunes.ts'

function total(music: string | (typeof CORPUS)[number], level: Level, share = 1): number {
  const tune = typeof music === 'string' ? tuneOfMusic(music) : music
  const { layer, plan } = arrangeTune(tune, 'alternating-bass', level)
  return effortOf(tune, guitarSetup(), layer, plan.timeline, share).reduce((sum, m) => sum + m.effort, 0)
}

describe('effort', () => {
  it('rises with tempo on every tune', () => {
    for (const t of CORPUS) {
      expect(total(t, 3, 1)).toBeGreaterThan(total(t, 3, 0.6))
      expect(total(t, 3, 1.4)).toBeGreaterThan(total(t, 3, 1))
    }
  })

  it('falls for the easier level', () => {
    for (const t of CORPUS) expect(total(t, 1)).toBeLessThan(total(t, 3))
  })

  it('says its largest part first, each in its unit', () => {
    const tune = CORPUS[5]!
    const { layer, plan } = arrangeTune(tune, 'alternating-bass', 3)
    for (const m of effortOf(tune, guitarSetup(), layer, plan.timeline)) {
      const points = m.parts.map((p) => p.points)
      expect(points).toEqual([...points].sort((a, b) => b - a))
      expect(m.effort).toBeCloseTo(
        points.reduce((a, b) => a + b, 0),
        0,
      )
    }
  })

  it('puts the open chords of first lessons below F and Bm', () => {
    const easy = total('"C"c4|"G"B4|"Em"B4|"Am"c4|]', 3)
    const hard = total('"F"c4|"Bm"d4|"F"c4|"Bm"d4|]', 3)
    expect(hard).toBeGreaterThan(easy)
  })
})
