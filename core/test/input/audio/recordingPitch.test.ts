import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { hertz, keyText } from '../../../src/music/index.ts'
import { guitarSetup } from '../../../src/instrument/index.ts'
import type { TuneDoc } from '../../../src/document/index.ts'
import { arranging, wholeTune } from '../../../src/arrange/index.ts'
import { finish } from '../../../src/turns.ts'
import { recordingPitch } from '../../../src/input/audio/index.ts'
import { InstrumentVoice, scoreOf } from '../../../src/output/sound/index.ts'
import { CORPUS } from '../../support/tunes.ts'

const RATE = 22_050

const read = (samples: Float32Array) => finish(recordingPitch(samples, RATE))

/** A tune played by the app's own strings, every pitch off by some cents. */
function played(tune: TuneDoc, cents: number, seconds: number): Float32Array {
  const setup = guitarSetup()
  const { layer, plan } = finish(arranging(tune, setup, wholeTune(tune, 'alternating-bass', 2)))
  const score = scoreOf(tune, setup, layer, plan.timeline, plan.unfolded)
  const voice = new InstrumentVoice(RATE)
  voice.sequencer.load({
    ...score,
    clicks: [],
    notes: score.notes.map((n) => ({ ...n, hertz: n.hertz * 2 ** (cents / 1200) })),
  })
  voice.sequencer.play(0, false)
  const out = new Float32Array(seconds * RATE)
  for (let at = 0; at + 256 <= out.length; at += 256) voice.render(out.subarray(at, at + 256))
  return out
}

/**
 * A second, different synthesiser: sums of sines with falling partials, a little stiffness of the string, vibrato, noise
 * and a chord in every half second.
 */
function additive(chords: readonly (readonly number[])[], cents: number, seed = 1): Float32Array {
  const out = new Float32Array(Math.round(chords.length * 0.5 * RATE))
  let noise = seed
  chords.forEach((chord, c) => {
    const from = Math.round(c * 0.5 * RATE)
    for (const midi of chord) {
      const base = hertz(midi) * 2 ** (cents / 1200)
      for (let k = 1; k <= 6; k++) {
        const f = base * k * Math.sqrt(1 + 0.00004 * k * k)
        for (let i = 0; i < 0.5 * RATE && from + i < out.length; i++) {
          const t = i / RATE
          out[from + i]! += (0.1 / k ** 1.3) * Math.exp(-3 * t * k ** 0.5) * Math.sin(2 * Math.PI * f * t)
        }
      }
    }
  })
  for (let i = 0; i < out.length; i++) {
    noise = (noise * 1_103_515_245 + 12_345) % 2_147_483_648
    out[i]! += 0.002 * (noise / 1_073_741_824 - 1)
  }
  return out
}

const C_MAJOR = [
  [48, 64, 67],
  [53, 57, 65],
  [43, 59, 67],
  [48, 60, 64],
  [45, 60, 64],
  [50, 57, 65],
  [43, 55, 71],
  [48, 64, 72],
]

/** The 95th of a hundred, by rank. */
const p95 = (list: readonly number[]) =>
  [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(0.95 * list.length))]!

/** Traditional tunes, long out of copyright, from memory. */
describe('the tuning of a recording', () => {
  it('is found within 3 cents (p95) for the app’s strings, detuned by known cents', () => {
    const errors = CORPUS.slice(0, 10).flatMap((tune, i) =>
      [-44, 31].map((cents) => {
        const reading = read(played(tune, cents + i, 8))
        if (!reading.ok) throw new Error(reading.fault)
        return Math.abs(reading.cents - (cents + i))
      }),
    )
    expect(p95(errors)).toBeLessThan(3)
  })

  it('is found within 3 cents (p95) for another synthesiser', () => {
    const errors: number[] = []
    fc.assert(
      fc.property(fc.integer({ min: -45, max: 45 }), fc.integer({ min: 0, max: 11 }), (cents, up) => {
        const reading = read(
          additive(
            C_MAJOR.map((c) => c.map((m) => m + up)),
            cents,
            cents + 99,
          ),
        )
        if (!reading.ok) throw new Error(reading.fault)
        errors.push(Math.abs(reading.cents - cents))
      }),
      { numRuns: 20, seed: 5 },
    )
    expect(p95(errors)).toBeLessThan(3)
  })
})

describe('the key of a recording', () => {
  it('is among the candidates, which are always more than one', () => {
    let found = 0
    for (let up = 0; up < 12; up++) {
      const reading = read(
        additive(
          C_MAJOR.map((c) => c.map((m) => m + up)),
          20,
        ),
      )
      if (!reading.ok) throw new Error(reading.fault)
      expect(reading.keys).toHaveLength(3)
      const wanted = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B'][up]
      if (reading.keys.some(({ key }) => keyText(key).replace('Gb', 'F#') === `${wanted} major`)) found++
    }
    expect(found).toBe(12)
  })

  it('is the tune’s own for most tunes played by the app’s strings', () => {
    const tunes = CORPUS.slice(0, 13)
    const found = tunes.filter((tune) => {
      const reading = read(played(tune, 12, 14))
      if (!reading.ok) return false
      return reading.keys.some(({ key }) => keyText(key) === keyText(tune.measures[0]!.key))
    })
    expect(found.length).toBeGreaterThanOrEqual(8)
  })
})

describe('what has no pitch', () => {
  it('silence, a click of a second, and noise are said, not guessed', () => {
    expect(read(new Float32Array(5 * RATE))).toEqual({ ok: false, fault: 'silence' })
    expect(read(new Float32Array(RATE))).toEqual({ ok: false, fault: 'tooShort' })
    let x = 7
    const noise = Float32Array.from({ length: 6 * RATE }, () => {
      x = (x * 1_103_515_245 + 12_345) % 2_147_483_648
      return 0.3 * (x / 1_073_741_824 - 1)
    })
    expect(read(noise)).toEqual({ ok: false, fault: 'noPitch' })
  })

  it('gliding tones as in speech are not taken for music', () => {
    let phase = 0
    const speech = Float32Array.from({ length: 8 * RATE }, (_, i) => {
      const t = i / RATE
      const f = 130 + 45 * Math.sin(2 * Math.PI * 0.9 * t) + 25 * Math.sin(2 * Math.PI * 2.3 * t + 1)
      phase += (2 * Math.PI * f) / RATE
      const syllable = Math.max(0, Math.sin(2 * Math.PI * 3.1 * t))
      return 0.2 * syllable * [1, 2, 3, 4, 5, 6].reduce((s, k) => s + Math.sin(k * phase) / k, 0)
    })
    expect(read(speech)).toMatchObject({ ok: false, fault: 'noPitch' })
  })
})
