import { LISTENED } from '@velvet-porch/core/input/audio'
import { closeMicrophone, openMicrophone } from '../../score/hearing/microphone.ts'
import { LOOK_MS, type SoundSource } from './soundSource.ts'

/**
 * The microphone. Nothing is recorded: only the last third of a second is kept.
 * @throws MicrophoneError
 */
export const microphone: SoundSource = async (hear) => {
  const stream = await openMicrophone()
  const context = new AudioContext()
  const analyser = context.createAnalyser()
  analyser.fftSize = LISTENED
  context.createMediaStreamSource(stream).connect(analyser)
  const samples = new Float32Array(LISTENED)
  // A page that was hidden may have been put to sleep.
  const look = setInterval(() => {
    if (context.state === 'suspended') void context.resume()
    analyser.getFloatTimeDomainData(samples)
    hear(samples.slice(), context.sampleRate)
  }, LOOK_MS)
  return () => {
    clearInterval(look)
    closeMicrophone(stream)
    void context.close()
  }
}
