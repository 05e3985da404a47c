import { describe, expect, it } from 'vitest'
import { audit, STRUCTURAL } from '../../../src/audit/index.ts'
import { isSolo, SOLO_STYLES, type Level, type SoloStyle } from '../../../src/document/index.ts'
import { refusalOf } from '../../../src/arrange/index.ts'
import { GUITAR } from '../../../src/instrument/index.ts'
import { finishedTabOf } from '../../../src/output/index.ts'
import { mod12 } from '../../../src/music/index.ts'
import { IDIOMS } from '../../../src/arrange/ornament/idioms.ts'
import { arrangeTune, CORPUS } from '../../support/tunes.ts'

/** How many thirds under the tunes are hammered on. */
const hammered = (style: SoloStyle, level: Level) =>
  CORPUS.slice(0, 6)
    .flatMap((tune) => arrangeTune(tune, style, level).json.notes)
    .filter((n) => n.role !== 'melody' && n.graces).length

describe('the third of a chord', () => {
  it('is hammered on from the open string where the chord comes, from level 4 on, in styles that do so', () => {
    expect(hammered('arpeggio', 4)).toBeGreaterThan(0)
    expect(hammered('arpeggio', 3)).toBe(0)
    expect(hammered('cross-string', 4)).toBe(0)
  })

  it('is the chord’s third, a step or a half over an open string of the key, on every tune', () => {
    let found = 0
    for (const tune of CORPUS.slice(0, 10))
      for (const style of ['alternating-bass', 'arpeggio'] as const) {
        const { json, plan } = arrangeTune(tune, style, 4)
        for (const n of json.notes) {
          if (n.role === 'melody' || !n.graces) continue
          found++
          const chord = plan.harmony.findLast((h) => h.start <= n.start)!.sounding!
          expect([3, 4]).toContain(mod12(n.midi - (chord.root.alter + STEPS[chord.root.step])))
          expect(n.graces.map((g) => [g.string, g.fret])).toEqual([[n.string, 0]])
          expect(n.technique).toBe('hammer')
          expect(n.fret).toBeLessThanOrEqual(2)
        }
      }
    expect(found).toBeGreaterThan(5)
  })
})

const STEPS = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 } as const

describe('a long note', () => {
  it('is slid into from below on strong beats, no oftener than every fourth measure, where its style slides', () => {
    for (const tune of CORPUS.slice(0, 5))
      for (const style of SOLO_STYLES) {
        if (refusalOf(style, 4, GUITAR) || !isSolo(style)) continue
        const { json } = arrangeTune(tune, style, 4)
        const slid = json.notes.filter((n) => n.slideFromBelow)
        if (!IDIOMS[style].includes('slideIn')) expect(slid, `${tune.title} ${style}`).toEqual([])
        slid.forEach((n, i) => {
          expect(n.fret).toBeGreaterThanOrEqual(3)
          if (i > 0) expect(n.measure - slid[i - 1]!.measure).toBeGreaterThanOrEqual(4)
        })
      }
  })

  it('and every other idiom leaves the page without a fault', () => {
    for (const tune of CORPUS.slice(0, 5))
      for (const style of ['melody-bass', 'alternating-bass', 'arpeggio', 'flatpicked-lead'] as const) {
        const { json } = arrangeTune(tune, style, 5)
        const { findings } = audit(finishedTabOf(json))
        expect(
          findings.filter((f) => STRUCTURAL.has(f.kind)),
          `${tune.title} ${style}`,
        ).toEqual([])
      }
  })
})
