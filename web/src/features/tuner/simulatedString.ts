import { LISTENED } from '@velvet-porch/core/input/audio'
import { PluckedString } from '@velvet-porch/core/output/sound'
import { LOOK_MS, type SoundSource } from './soundSource.ts'

/** A string that stands in for one before a microphone. */
export interface SimulatedString {
  readonly hertz: number
  /** Amplitude of the noise in the room, 0 to 1. */
  readonly noise: number
}

const RATE = 48_000
const PLUCKED_EVERY_S = 3

/** Plucks a string every three seconds, unheard; `string` is asked for what it is now. */
export const simulatedString =
  (string: () => SimulatedString): SoundSource =>
  (hear) => {
    const voice = new PluckedString(RATE)
    const samples = new Float32Array(LISTENED)
    const step = Math.round((RATE * LOOK_MS) / 1000)
    let until = 0
    let plucked = 0
    const look = setInterval(() => {
      const { hertz, noise } = string()
      if (until <= 0 || hertz !== plucked) {
        voice.pluck(hertz, 0.8)
        plucked = hertz
        until = RATE * PLUCKED_EVERY_S
      }
      until -= step
      samples.copyWithin(0, step)
      const fresh = samples.subarray(LISTENED - step)
      fresh.fill(0)
      voice.render(fresh, 0, step)
      for (let i = 0; i < step; i++) fresh[i] = fresh[i]! + noise * (2 * Math.random() - 1)
      hear(samples.slice(), RATE)
    }, LOOK_MS)
    return Promise.resolve(() => clearInterval(look))
  }
