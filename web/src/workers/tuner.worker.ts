import { stringPitch, type StringPitch } from '@velvet-porch/core/input/audio'
import { serve } from './serve.ts'

const api = {
  pitch(samples: Float32Array, rate: number): StringPitch | undefined {
    return stringPitch(samples, rate)
  },
}

export type TunerApi = typeof api
serve(api)
