import { describe, expect, it } from 'vitest'
import { LISTENED, stringPitch } from '../../../src/input/audio/index.ts'
import { hertz } from '../../../src/music/index.ts'
import { INSTRUMENTS } from '../../../src/instrument/index.ts'
import { additiveString, noise, seeded } from '../../support/otherStrings.ts'

const RATE = 48_000
const cents = (a: number, b: number) => 1200 * Math.log2(a / b)
const p95 = (list: readonly number[]) => [...list].sort((a, b) => a - b)[Math.floor(list.length * 0.95)]!

describe('the pitch of a string', () => {
  it.each(['guitar', 'mandolin'] as const)(
    'of a %s is found within a cent in 95 of 100 tones of another synthesiser, 15 dB over noise',
    (kind) => {
      const random = seeded(7)
      const off: number[] = []
      for (const midi of INSTRUMENTS[kind].usual)
        for (let take = 0; take < 20; take++) {
          const wanted = hertz(midi) * 2 ** ((random() * 100 - 50) / 1200)
          const tone = additiveString(wanted, RATE, LISTENED, { random, stiffness: random() * 4e-4 })
          const heard = stringPitch(noise(tone, 15, random), RATE)
          off.push(heard ? Math.abs(cents(heard.hertz, wanted)) : Infinity)
        }
      expect(p95(off)).toBeLessThan(1)
    },
  )

  it('is that of the string and not of its octaves, at any rate that a device may have', () => {
    for (const rate of [16_000, 22_050, 44_100, 48_000, 96_000])
      for (const midi of INSTRUMENTS.guitar.usual) {
        const random = seeded(midi)
        const heard = stringPitch(
          additiveString(hertz(midi), rate, LISTENED, { random, stiffness: 1e-4 }),
          rate,
        )
        expect(Math.abs(cents(heard?.hertz ?? 1, hertz(midi))), `${rate} ${midi}`).toBeLessThan(2)
      }
  })

  it('is none for silence, noise, and two strings at once that are no octave', () => {
    const random = seeded(3)
    expect(stringPitch(new Float32Array(LISTENED), RATE)).toBeUndefined()
    expect(
      stringPitch(
        Float32Array.from({ length: LISTENED }, () => 0.4 * (random() - 0.5)),
        RATE,
      ),
    ).toBeUndefined()
    expect(stringPitch(new Float32Array(100).fill(0.3), RATE)).toBeUndefined()
  })
})
