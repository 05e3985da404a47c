import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { guitarSetup, namedTunings } from '../../../src/instrument/index.ts'
import { arranging, wholeTune } from '../../../src/arrange/index.ts'
import { audit } from '../../../src/audit/index.ts'
import { finishedTabOf, tabJson } from '../../../src/output/index.ts'
import { finish } from '../../../src/turns.ts'
import { readAbc } from '../../../src/input/abc/readAbc.ts'

const corpus = readAbc(
  readFileSync(new URL('../../corpus/traditional.abc', import.meta.url), 'utf8'),
  () => 't',
)
const tunes = corpus.flatMap((r) => (r.tune ? [r.tune] : []))

/** Traditional tunes, long out of copyright, from memory; each tuning takes other tunes, styles, levels and capos. */
describe('every named tuning', () => {
  it.each(namedTunings('guitar').map((n, i) => [n.id, n.tuning, i] as const))(
    '%s: every melody note kept, every root there, no structural fault, by the audit of the finished tab',
    (_, tuning, i) => {
      for (let k = 0; k < 4; k++) {
        const tune = tunes[(i * 3 + k * 5) % tunes.length]!
        const style = (i + k) % 2 === 0 ? 'melody-bass' : 'alternating-bass'
        const level = (((i + k) % 3) + 1) as 1 | 2 | 3
        const setup = { ...guitarSetup((i + k) % 4), tuning }
        const { layer, plan } = finish(arranging(tune, setup, wholeTune(tune, style, level)))
        const report = audit(finishedTabOf(tabJson(tune, setup, plan, layer, [], 0)))
        expect(report.structural, tune.title).toBe(0)
        expect(report.melodyKept, tune.title).toBe(report.melodyNotes)
        expect(report.rootsInBass, tune.title).toBe(report.harmonyChanges)
      }
    },
  )
})
