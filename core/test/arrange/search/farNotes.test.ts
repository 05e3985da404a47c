import { describe, expect, it } from 'vitest'
import { guitarSetup, harmonicsOf, pitchAt } from '../../../src/instrument/index.ts'
import { LEVELS, SOLO_STYLES, type Level, type Style } from '../../../src/document/index.ts'
import { arranging, wholeTune } from '../../../src/arrange/index.ts'
import { audit } from '../../../src/audit/index.ts'
import { finishedTabOf, tabJson } from '../../../src/output/index.ts'
import { finish } from '../../../src/turns.ts'
import { tuneOfMusic } from '../../support/tunes.ts'

const setup = guitarSetup()
const HIGH = tuneOfMusic('"Em"E2 G2|e2 g2|b4|d\'4|e\'4|b2 e2|]', 'M:4/4\nL:1/4\nQ:1/4=70\nK:Em')

function arranged(style: Style, level: Level) {
  const { layer, plan } = finish(arranging(HIGH, setup, wholeTune(HIGH, style, level)))
  return { layer, report: audit(finishedTabOf(tabJson(HIGH, setup, plan, layer, [], plan.transposed))) }
}

describe('harmonics for long notes far up the neck', () => {
  it('are offered from level 4 on, sound the pitch of the melody, and break nothing', () => {
    let found = 0
    for (const style of SOLO_STYLES) {
      if (style === 'cross-string') continue
      for (const level of LEVELS) {
        if (style === 'chord-melody' && level === 1) continue
        const { layer, report } = arranged(style, level)
        const touched = layer.notes.filter((n) => n.place.harmonic)
        if (level < 4) expect(touched, `${style} ${level}`).toEqual([])
        expect(report.structural, `${style} ${level}`).toBe(0)
        expect(report.melodyKept).toBe(report.melodyNotes)
        for (const n of touched) {
          // The node and its pitch are those of the harmonics table, which is physics of the string.
          const node = harmonicsOf(setup).find(
            (h) => h.string === n.place.string && h.fret === n.place.fret && h.parts === n.place.harmonic,
          )
          expect(node?.midi).toBe(pitchAt(setup, n.place))
        }
        found += touched.length
      }
    }
    expect(found).toBeGreaterThan(0)
  })
})
