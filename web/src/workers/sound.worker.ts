import { bounce, wavOf, type Performance, type PlaySettings } from '@velvet-porch/core/output/sound'
import { transfer } from 'comlink'
import { inTurns } from './inTurns.ts'
import { serve } from './serve.ts'

const api = {
  /** The bytes of a WAV file. */
  async wav(
    score: Performance,
    settings: PlaySettings,
    onProgress: (share: number) => void,
  ): Promise<Uint8Array<ArrayBuffer>> {
    const bytes = wavOf(await inTurns(bounce(score, settings), { onProgress }))
    return transfer(bytes, [bytes.buffer])
  },
}

export type SoundApi = typeof api
serve(api)
