import { PitchDetector } from 'pitchy'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { seeded } from '../../support/otherStrings.ts'
import { hertz } from '../../../src/music/index.ts'
import { simulatedTake } from '../../../src/output/sound/index.ts'

const RATE = 44_100
const NOTES = [52, 57, 62].map((midi, i) => ({
  seconds: 0.6 * i,
  string: 1,
  hertz: hertz(midi),
  rings: 0.6,
}))
const ROOM = { latency: 0.1, noise: 0 }

/** The pitch that another detector hears from a second on; undefined where it hears none. */
function heardAt(samples: Float32Array, second: number): number | undefined {
  const size = 4096
  const window = samples.slice(Math.round(second * RATE), Math.round(second * RATE) + size)
  if (window.every((x) => Math.abs(x) < 1e-3)) return undefined
  const [pitch] = PitchDetector.forFloat32Array(size).findPitch(window, RATE)
  return Math.round(69 + 12 * Math.log2(pitch / 440))
}

// Strings are struck a little differently each time, and the detector now and then takes an octave for one: here each run is the same.
beforeEach(() => {
  vi.spyOn(Math, 'random').mockImplementation(seeded(7))
})
afterEach(() => {
  vi.restoreAllMocks()
})

describe('a simulated student', () => {
  it('plays what is written, as late as the device is', () => {
    const samples = simulatedTake(NOTES, new Map(), RATE, ROOM)
    expect([0, 1, 2].map((i) => heardAt(samples, 0.6 * i + 0.25))).toEqual([52, 57, 62])
    expect(samples.slice(0, Math.floor(0.099 * RATE)).every((x) => x === 0)).toBe(true)
  })

  it('makes the mistakes that are chosen, and no others', () => {
    const samples = simulatedTake(
      NOTES,
      new Map([
        [0, { kind: 'fret', by: 2 }],
        [1, { kind: 'missed' }],
        [2, { kind: 'late', seconds: 0.2 }],
      ]),
      RATE,
      ROOM,
    )
    expect(heardAt(samples, 0.25)).toBe(54)
    expect(heardAt(samples, 0.95)).toBeUndefined()
    expect(heardAt(samples, 1.65)).toBe(62)
  })
})
