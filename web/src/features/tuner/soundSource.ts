/** Somebody who wants to hear: the latest samples, some times a second. */
export type Hear = (samples: Float32Array, rate: number) => void

/** Where sound comes from. It ends when it is asked to. */
export type SoundSource = (hear: Hear) => Promise<() => void>

/** Milliseconds from one look at the sound to the next. */
export const LOOK_MS = 120
