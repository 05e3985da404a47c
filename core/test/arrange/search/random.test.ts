import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { GUITAR } from '../../../src/instrument/index.ts'
import { LEVELS, SOLO_STYLES } from '../../../src/document/index.ts'
import { ArrangeError, refusalOf } from '../../../src/arrange/index.ts'
import { STRUCTURAL } from '../../../src/audit/index.ts'
import { readAbc } from '../../../src/input/abc/readAbc.ts'
import { arrangeTune } from '../../support/tunes.ts'
import { randomTune } from '../../support/randomTune.ts'
import { say } from '../../support/words.ts'

describe('random tunes, harder than any real one', () => {
  it('are arranged without a structural fault and with every melody note, or refused with the measure', () => {
    let arranged = 0
    fc.assert(
      fc.property(
        randomTune,
        fc.constantFrom(...SOLO_STYLES),
        fc.constantFrom(...LEVELS),
        fc.integer({ min: 0, max: 9 }),
        (abc, style, level, capo) => {
          const tune = readAbc(abc, () => 'tune')[0]!.tune
          if (!tune || refusalOf(style, level, GUITAR)) return
          try {
            const { report, json } = arrangeTune(tune, style, level, capo)
            expect(report.findings.filter((f) => STRUCTURAL.has(f.kind))).toEqual([])
            expect(report.melodyKept).toBe(report.melodyNotes)
            for (const n of json.notes) expect(n.ring).toBeGreaterThan(0)
            arranged++
          } catch (error) {
            if (!(error instanceof ArrangeError)) throw error
            expect(say(error.says)).toMatch(/^Measure \d+: the melody leaves the instrument/)
          }
        },
      ),
      { numRuns: 120, seed: 11 },
    )
    expect(arranged).toBeGreaterThan(60)
  })
})
