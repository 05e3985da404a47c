import { PitchDetector } from 'pitchy'
import { describe, expect, it } from 'vitest'
import { hertz, QUARTER } from '../../../src/music/index.ts'
import { bounce, scoreOf, wavOf, type Performance } from '../../../src/output/sound/index.ts'
import { guitarSetup } from '../../../src/instrument/index.ts'
import { finish } from '../../../src/turns.ts'
import { arrangeTune, tuneOfMusic } from '../../support/tunes.ts'

const RATE = 44_100
const BPM = 120
const SECONDS_A_QUARTER = 60 / BPM

/** One string after the other, a quarter each. */
const scoreWith = (midis: readonly number[]): Performance => ({
  notes: midis.map((midi, i) => ({
    at: i * QUARTER,
    until: (i + 1) * QUARTER - 1,
    string: (i % 6) + 1,
    hertz: hertz(midi),
    role: 'melody' as const,
    velocity: 0.8,
  })),
  clicks: [],
  tempos: [{ at: 0, bpm: BPM }],
  length: midis.length * QUARTER,
  beat: QUARTER,
  countIn: 4,
})

const bounced = (score: Performance, settings = { tempo: 1 }) => finish(bounce(score, settings, RATE)).samples

describe('a bounce', () => {
  const midis = [40, 45, 50, 55, 59, 64, 52, 67, 71]

  it('has the pitches of the score, as another detector hears them', () => {
    const samples = bounced(scoreWith(midis))
    const size = 8192
    const detector = PitchDetector.forFloat32Array(size)
    midis.forEach((midi, i) => {
      const from = Math.round((i + 0.15) * SECONDS_A_QUARTER * RATE)
      const window = Float32Array.from(samples.subarray(from, from + size), (x) => x / 32768)
      const [pitch, clarity] = detector.findPitch(window, RATE)
      expect(clarity).toBeGreaterThan(0.9)
      // The other detector itself is a few cents off at the low strings.
      expect(Math.abs(1200 * Math.log2(pitch / hertz(midi)))).toBeLessThan(5)
    })
  })

  it('strikes each note within a millisecond of the score', () => {
    // Rests between, so that each beginning stands alone.
    const score = scoreWith([64, 64, 64, 64, 64])
    const spaced: Performance = {
      ...score,
      notes: score.notes.map((n, i) => ({
        ...n,
        at: 3 * i * QUARTER + 111,
        until: 3 * i * QUARTER + QUARTER,
      })),
      length: 15 * QUARTER,
    }
    const samples = bounced(spaced)
    for (const n of spaced.notes) {
      const expected = (n.at / QUARTER) * SECONDS_A_QUARTER
      const around = Math.round((expected - 0.05) * RATE)
      const quiet = Math.max(...samples.subarray(around, around + 1800).map(Math.abs))
      const at = samples.findIndex((x, i) => i >= around && Math.abs(x) > Math.max(60, 2 * quiet))
      expect(Math.abs(at / RATE - expected)).toBeLessThan(0.001)
    }
  })

  it('lasts as long as the tune at its tempo, and the last strings ring', () => {
    const seconds = (tempo: number) => bounced(scoreWith(midis), { tempo }).length / RATE
    expect(seconds(1)).toBeCloseTo(midis.length * SECONDS_A_QUARTER + 2.5, 1)
    expect(seconds(0.5)).toBeCloseTo(2 * midis.length * SECONDS_A_QUARTER + 2.5, 1)
  })

  it('of marked measures has them once', () => {
    const loop = { from: 2 * QUARTER, to: 4 * QUARTER }
    const samples = finish(bounce(scoreWith(midis), { tempo: 1, loop }, RATE)).samples
    expect(samples.length / RATE).toBeCloseTo(2 * SECONDS_A_QUARTER + 2.5, 1)
  })

  it('is never cut off at its loudest, however full the chords', () => {
    const loud = scoreWith([40, 45, 50, 55, 59, 64])
    const samples = bounced({ ...loud, notes: loud.notes.map((n) => ({ ...n, at: 0, velocity: 1 })) })
    const peak = samples.reduce((most, x) => Math.max(most, Math.abs(x)), 0)
    expect(peak).toBeGreaterThan(3000)
    expect(samples.filter((x) => Math.abs(x) >= 32_767).length).toBeLessThan(4)
  })

  it('of a whole arrangement makes a file that says its own length and rate', () => {
    const tune = tuneOfMusic('"C"c2e2|"G7"d2B2|"C"c4|]')
    const { layer, plan } = arrangeTune(tune, 'melody-bass', 2)
    const score = scoreOf(tune, guitarSetup(), layer, plan.timeline, plan.unfolded)
    const bytes = wavOf(finish(bounce(score, { tempo: 1.5, balance: { metronome: 'full' } }, RATE)))
    const view = new DataView(bytes.buffer)
    const text = (at: number) => String.fromCharCode(...bytes.subarray(at, at + 4))
    expect([text(0), text(8), text(36)]).toEqual(['RIFF', 'WAVE', 'data'])
    expect(view.getUint32(4, true)).toBe(bytes.length - 8)
    expect(view.getUint32(40, true)).toBe(bytes.length - 44)
    expect(view.getUint32(24, true)).toBe(RATE)
    expect([view.getUint16(20, true), view.getUint16(22, true), view.getUint16(34, true)]).toEqual([1, 1, 16])
  })
})
