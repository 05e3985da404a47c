/** Sound with the samples of a second. */
export interface Sound {
  readonly samples: Float32Array
  readonly rate: number
}

/** The highest rate that is listened to: beyond it lies noise alone. */
const HIGHEST = 50_000

/** A sound at a rate that devices usually have: one that is faster is halved, each sample the mean of two. */
export function atUsualRate(samples: Float32Array, rate: number): Sound {
  let sound: Sound = { samples, rate }
  while (sound.rate > HIGHEST) {
    const before = sound.samples
    const half = new Float32Array(before.length >> 1)
    for (let i = 0; i < half.length; i++) half[i] = (before[2 * i]! + before[2 * i + 1]!) / 2
    sound = { samples: half, rate: sound.rate / 2 }
  }
  return sound
}
