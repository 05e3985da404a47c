import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  LOUDNESSES,
  scoreOf,
  Sequencer,
  type Balance,
  type SoundEvent,
} from '../../../src/output/sound/index.ts'
import { guitarSetup } from '../../../src/instrument/index.ts'
import { arrangeTune, tuneOfMusic } from '../../support/tunes.ts'

const RATE = 8_000
const tune = tuneOfMusic('"C"c4|"G"g4|"C"cege|"F"f4|"C"c4|]', 'M:4/4\nL:1/4\nQ:1/4=240\nK:C')
const { layer, plan } = arrangeTune(tune, 'arpeggio', 3)
const score = scoreOf(tune, guitarSetup(), layer, plan.timeline, plan.unfolded)

type Pluck = Extract<SoundEvent, { kind: 'pluck' }>

/** What is struck with a balance, in order of time. */
function struck(balance: Balance | undefined): Pluck[] {
  const sequencer = new Sequencer(RATE)
  sequencer.load(score)
  sequencer.set({ tempo: 1.5, ...(balance ? { balance } : {}) })
  sequencer.play(0, false)
  const all: Pluck[] = []
  while (sequencer.playing) for (const e of sequencer.advance(128)) if (e.kind === 'pluck') all.push(e)
  return all
}

describe('the balance of the voices', () => {
  const full = struck(undefined)
  const loudness = fc.constantFrom(...LOUDNESSES)

  it('leaves out what is off, softens what is soft, and nothing else', () => {
    expect(new Set(full.map((e) => e.role))).toEqual(new Set(['melody', 'bass', 'harmony', 'fill']))
    fc.assert(
      fc.property(
        fc.record(
          { melody: loudness, bass: loudness, harmony: loudness, fill: loudness },
          { requiredKeys: [] },
        ),
        (balance) => {
          const heard = struck(balance)
          const wanted = full.filter((e) => balance[e.role as 'melody'] !== 'off')
          expect(heard.map((e) => [e.role, e.hertz])).toEqual(wanted.map((e) => [e.role, e.hertz]))
          heard.forEach((e, i) => {
            const share = e.velocity / wanted[i]!.velocity
            expect(share).toBeCloseTo(balance[e.role as 'melody'] === 'soft' ? 0.35 : 1, 5)
          })
        },
      ),
      { numRuns: 40 },
    )
  })
})
