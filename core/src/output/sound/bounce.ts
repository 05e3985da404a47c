import { InstrumentVoice } from './instrumentVoice.ts'
import type { Performance } from './performance.ts'
import type { PlaySettings } from './sequencer.ts'

/** Sound as numbers: one channel, 16 bits a sample. */
export interface Bounce {
  readonly sampleRate: number
  readonly samples: Int16Array
}

export const BOUNCE_RATE = 44_100

/** Samples of one block, and seconds that the last strings are left to ring. */
const BLOCK = 128
const RING_S = 2.5

/** Seconds of sound at most: what is longer is cut there. */
export const LONGEST_BOUNCE_S = 1800

/** Blocks after which it gives its turn back. */
const BLOCKS_A_TURN = 64

const FULL = 32_767

/**
 * Plays a score from the beginning into memory, as the audio thread would, and lets the last strings ring. A sound that would be
 * too loud is made quieter as a whole.
 * Yields the share that is done, 0 to 1.
 * @param settings tempo and balance as they are heard; a loop is played once
 */
export function* bounce(
  score: Performance,
  settings: PlaySettings,
  sampleRate = BOUNCE_RATE,
): Generator<number, Bounce> {
  const voice = new InstrumentVoice(sampleRate)
  const { loop, ...others } = settings
  voice.sequencer.load(score)
  voice.sequencer.set(others)
  voice.sequencer.play(loop?.from ?? 0, false)
  const from = loop?.from ?? 0
  const end = loop?.to ?? score.length
  const most = Math.ceil((LONGEST_BOUNCE_S * sampleRate) / BLOCK)
  const blocks: Float32Array[] = []
  let peak = 0
  let left = Math.ceil((RING_S * sampleRate) / BLOCK)
  while (left > 0 && blocks.length < most) {
    const block = new Float32Array(BLOCK)
    voice.render(block)
    for (const x of block) peak = Math.max(peak, Math.abs(x))
    blocks.push(block)
    const { sequencer } = voice
    if (sequencer.playing && sequencer.position >= end) sequencer.stop()
    if (!sequencer.playing) left--
    if (blocks.length % BLOCKS_A_TURN === 0)
      yield Math.min(1, (sequencer.position - from) / Math.max(1, end - from))
  }
  const gain = FULL / Math.max(1, peak)
  const samples = new Int16Array(blocks.length * BLOCK)
  blocks.forEach((block, b) => block.forEach((x, i) => (samples[b * BLOCK + i] = Math.round(x * gain))))
  return { sampleRate, samples }
}
