import { describe, expect, it } from 'vitest'
import { GUITAR, guitarSetup } from '../../../src/instrument/index.ts'
import { LEVELS, SOLO_STYLES } from '../../../src/document/index.ts'
import { refusalOf } from '../../../src/arrange/index.ts'
import { audit } from '../../../src/audit/index.ts'
import { finishedTabOf } from '../../../src/output/index.ts'
import { fingerCode } from '../../../src/hand/grip/pressed.ts'
import { packCandidates } from '../../../src/arrange/search/candidate.ts'
import { hiddenHops, jumps } from '../../../src/arrange/search/hiddenHops.ts'
import { BARE } from '../../support/draft.ts'
import { arrangeTune, tuneOfMusic } from '../../support/tunes.ts'

const grip = (...pressed: { string: number; fret: number; finger: number }[]) =>
  packCandidates(guitarSetup(), [
    {
      draft: BARE,
      pressed,
      position: 1,
      melody: 0,
      bass: 0,
      inner: 0,
      planted: 0,
      chord: [],
      heldShape: -1,
      lower: 0,
      fixed: 0,
      perBeat: 0,
    },
  ])

describe('jumps of one finger', () => {
  it('rolling to the next string at one fret is none, nor is staying on the string', () => {
    expect(jumps(fingerCode(2, 2, 3), fingerCode(3, 3, 3))).toBe(false)
    expect(jumps(fingerCode(2, 2, 3), fingerCode(2, 2, 5))).toBe(false)
    expect(jumps(fingerCode(2, 2, 3), fingerCode(3, 3, 4))).toBe(true)
    expect(jumps(fingerCode(1, 1, 2), fingerCode(4, 4, 2))).toBe(true)
  })

  it('are seen although a slice in between does not use the finger', () => {
    const sets = [grip({ string: 1, fret: 3, finger: 2 }), grip(), grip({ string: 4, fret: 2, finger: 2 })]
    const choice = Int32Array.of(0, 0, 0)
    expect(hiddenHops(sets, choice, [0, 0.06, 0.06])).toEqual([
      { slice: 2, finger: 1, from: fingerCode(1, 1, 3), inBarre: false },
    ])
    expect(hiddenHops(sets, choice, [0, 0.1, 0.1])).toEqual([])
    const used = [sets[0]!, grip({ string: 1, fret: 4, finger: 2 }), sets[2]!]
    expect(hiddenHops(used, choice, [0, 0.06, 0.06])).toEqual([])
  })

  it('a reel at full speed has none under 0.15 s at any level', () => {
    const reel = tuneOfMusic(
      '"D"d2fd Adfd|"G"B2dB "D"A2FA|"A7"e2ce A2Bc|"D"d2dc d4|]',
      'M:4/4\nL:1/8\nQ:1/4=220\nK:D',
    )
    for (const style of SOLO_STYLES) {
      for (const level of LEVELS) {
        if (refusalOf(style, level, GUITAR)) continue
        const { json } = arrangeTune(reel, style, level)
        expect(audit(finishedTabOf(json)).findings.filter((f) => f.kind === 'hop')).toEqual([])
      }
    }
  })
})
