import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { guitarSetup, type Setup, type Techniques } from '../../../src/instrument/index.ts'
import { arranging, wholeTune } from '../../../src/arrange/index.ts'
import { finish } from '../../../src/turns.ts'
import { readAbc } from '../../../src/input/abc/readAbc.ts'

const corpus = readAbc(
  readFileSync(new URL('../../corpus/traditional.abc', import.meta.url), 'utf8'),
  () => 't',
)
const without = (missing: Partial<Techniques>): Setup => {
  const setup = guitarSetup()
  return { ...setup, player: { ...setup.player, techniques: { ...setup.player.techniques, ...missing } } }
}

/** Traditional tunes, long out of copyright, from memory. */
describe('what a hand may be asked for', () => {
  const tunes = corpus.flatMap((r) => (r.tune ? [r.tune] : [])).slice(0, 6)

  it('no grip uses the little finger, or lays a finger across strings, where the hand may not', () => {
    let usual = 0
    for (const tune of tunes) {
      const grips = (setup: Setup) =>
        finish(arranging(tune, setup, wholeTune(tune, 'alternating-bass', 3))).layer.grips
      usual += grips(guitarSetup()).filter((g) => g.pressed.some((p) => p.finger === 4)).length
      for (const g of grips(without({ littleFinger: false })))
        expect(g.pressed.map((p) => p.finger)).not.toContain(4)
      for (const g of grips(without({ barre: false }))) {
        const fingers = g.pressed.map((p) => p.finger)
        expect(new Set(fingers).size).toBe(fingers.length)
      }
    }
    expect(usual).toBeGreaterThan(0)
  })
})
