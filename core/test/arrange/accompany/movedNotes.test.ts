import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { midiOf, mod12 } from '../../../src/music/index.ts'
import { guitarSetup, pitchAt, tuningById } from '../../../src/instrument/index.ts'
import { SOLO_STYLES } from '../../../src/document/index.ts'
import { arranging, remarkMessages, wholeTune } from '../../../src/arrange/index.ts'
import { audit } from '../../../src/audit/index.ts'
import { finishedTabOf, tabJson } from '../../../src/output/index.ts'
import { finish } from '../../../src/turns.ts'
import { tuneOfMusic } from '../../support/tunes.ts'
import { say } from '../../support/words.ts'

/** Notes up to A5, which rules out the octave above, and the low D that a guitar in standard tuning does not have. */
const LOW = '"D"D,,FAd|"G"gdBG|"D"fafd|"A"a2e2|"D"d4|]'
const HEAD = 'M:4/4\nL:1/4\nK:D'

describe('single notes that the instrument does not have', () => {
  it('are played an octave on and said, with the drop tuning that has them', () => {
    const tune = tuneOfMusic(LOW, HEAD)
    for (const style of SOLO_STYLES.filter((s) => s !== 'drone')) {
      const setup = guitarSetup()
      const { plan, layer, remarks } = finish(arranging(tune, setup, wholeTune(tune, style, 2)))
      const moved = plan.melody.filter((n) => n.moved)
      expect(moved, style).toHaveLength(1)
      expect(moved[0]!.moved! % 12).toBe(0)
      const [remark] = remarks
      expect(remark).toMatchObject({ kind: 'movedNote', measure: 0, octaves: 1, lower: 2 })
      expect(remarkMessages(remark!, 1).map(say).join(' ')).toMatch(
        /^Measure 1: .* played an octave higher\. .* 2 semitones lower/,
      )
      const report = audit(finishedTabOf(tabJson(tune, setup, plan, layer, [], 0)))
      expect([report.structural, report.melodyKept], style).toEqual([0, report.melodyNotes])
    }
  })

  it('stay where they are in the tuning that has them', () => {
    const tune = tuneOfMusic(LOW, HEAD)
    const setup = { ...guitarSetup(), tuning: tuningById('guitar', 'dropD') }
    const { plan, remarks } = finish(arranging(tune, setup, wholeTune(tune, 'melody-bass', 2)))
    expect(plan.melody.some((n) => n.moved)).toBe(false)
    expect(remarks).toEqual([])
  })

  it('keep their name: moved by whole octaves onto the instrument, all others untouched', () => {
    const names = ['D', 'F', 'A', 'd', 'f', 'a', 'g', 'e']
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(...names), { minLength: 12, maxLength: 20 }),
        fc.constantFrom('D,,', 'E,,', 'C,,'),
        fc.nat({ max: 11 }),
        (notes, low, at) => {
          const music = [...notes.slice(0, at), low, 'a', ...notes.slice(at)]
          const tune = tuneOfMusic(`"D"${music.join(' ')}|]`, `M:${music.length}/4\nL:1/4\nK:D`)
          const setup = guitarSetup()
          const { plan, layer } = finish(arranging(tune, setup, wholeTune(tune, 'flatpicked-lead', 2)))
          const melody = layer.notes.filter((n) => n.role === 'melody')
          melody.forEach((n, i) => {
            const source = midiOf(plan.melody[i]!.pitch) + plan.transposed
            expect(pitchAt(setup, n.place)).toBe(source + (plan.melody[i]!.moved ?? 0))
            expect(mod12(pitchAt(setup, n.place))).toBe(mod12(source))
          })
          expect(plan.melody.filter((n) => n.moved).length).toBeLessThanOrEqual(2)
        },
      ),
      { numRuns: 60 },
    )
  })
})
