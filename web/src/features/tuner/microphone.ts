import { LISTENED } from '@velvet-porch/core/input/audio'
import { LOOK_MS, type HearingFault, type SoundSource } from './soundSource.ts'

/** The microphone could not be had. */
export class MicrophoneError extends Error {
  override readonly name = 'MicrophoneError'
  constructor(readonly fault: HearingFault) {
    super(fault)
  }
}

/** What browsers call it (Media Capture and Streams, getUserMedia). */
const FAULTS: Readonly<Record<string, HearingFault>> = {
  NotAllowedError: 'refused',
  SecurityError: 'refused',
  NotFoundError: 'none',
  OverconstrainedError: 'none',
  NotReadableError: 'taken',
  AbortError: 'taken',
}

/**
 * The microphone as it is, without what browsers do to speech. Nothing is recorded: only the last third of a second is kept.
 * @throws MicrophoneError
 */
export const microphone: SoundSource = async (hear) => {
  if (!navigator.mediaDevices) throw new MicrophoneError('notOffered')
  const stream = await navigator.mediaDevices
    .getUserMedia({ audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false } })
    .catch((error: unknown) => {
      throw new MicrophoneError(FAULTS[(error as DOMException).name] ?? 'none')
    })
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
    for (const track of stream.getTracks()) track.stop()
    void context.close()
  }
}
