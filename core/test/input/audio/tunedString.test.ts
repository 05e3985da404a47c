import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  steadyPitch,
  tunedString,
  wantedPitch,
  withPitch,
  type PitchesHeard,
} from '../../../src/input/audio/index.ts'
import { guitarSetup, namedTunings, setupOf } from '../../../src/instrument/index.ts'
import { hertz } from '../../../src/music/index.ts'

const setups = [
  ...namedTunings('guitar').flatMap(({ tuning }) =>
    [0, 2, 7].map((fret) => setupOf('guitar', tuning, { fret })),
  ),
  setupOf('mandolin'),
]
const usual = { a4: 440, capoOn: false }

describe('a string that is tuned', () => {
  it('is the one that is heard, off by as many cents as it was let down or drawn up, in every tuning and behind a capo', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...setups),
        fc.nat(5),
        fc.integer({ min: -45, max: 45 }),
        fc.constantFrom(415, 432, 440, 443),
        fc.boolean(),
        (setup, nth, off, a4, capoOn) => {
          const string = (nth % setup.tuning.length) + 1
          const settings = { a4, capoOn }
          const wanted = wantedPitch(setup, string, settings)
          const heard = tunedString(setup, hertz(wanted) * (a4 / 440) * 2 ** (off / 1200), settings)
          expect(heard.wanted).toBe(wanted)
          expect(heard.cents).toBeCloseTo(off, 1)
          expect(heard.turn === 'inTune').toBe(Math.abs(off) <= 3)
          expect(heard.turn.startsWith('tighten')).toBe(off < -3)
          expect(heard.turn.startsWith('loosen')).toBe(off > 3)
        },
      ),
    )
  })

  it('has the pitch of its open string without the capo, and of its fret behind it', () => {
    const setup = guitarSetup(2)
    expect(wantedPitch(setup, 6, { capoOn: false })).toBe(40)
    expect(wantedPitch(setup, 6, { capoOn: true })).toBe(42)
  })

  it('that was asked for is told apart from another one, and followed far down where no other is nearer', () => {
    const setup = guitarSetup()
    expect(tunedString(setup, hertz(45), { ...usual, string: 6 }).turn).toBe('otherString')
    expect(tunedString(setup, hertz(36), { ...usual, string: 6 })).toMatchObject({
      string: 6,
      cents: -400,
      turn: 'tighten',
    })
    expect(tunedString(setup, hertz(40), { ...usual, string: 6 }).turn).toBe('inTune')
  })
})

describe('a needle', () => {
  it('is moved by no single reading that is wrong', () => {
    let heard: PitchesHeard = []
    for (const pitch of [110.1, 110.2, 110, 112.6, 110.1]) heard = withPitch(heard, pitch)
    expect(steadyPitch(heard)).toBeCloseTo(110.1, 5)
  })

  it('goes to another string once that is heard', () => {
    let heard: PitchesHeard = []
    for (const pitch of [110, 110, 110, 146.8, 146.8, 146.9]) heard = withPitch(heard, pitch)
    expect(steadyPitch(heard)).toBeCloseTo(146.8, 1)
  })

  it('shows nothing before anything is heard', () => {
    expect(steadyPitch([])).toBeUndefined()
  })
})
