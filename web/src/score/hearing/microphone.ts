/** Why nothing can be heard: refused by whoever sits there, no microphone, one that is taken, or a page that may not ask. */
export type HearingFault = 'refused' | 'none' | 'taken' | 'notOffered'

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

/** Why it could not be had, whatever went wrong. */
export const hearingFault = (error: unknown): HearingFault =>
  error instanceof MicrophoneError ? error.fault : 'none'

/**
 * The microphone as it is, without what browsers do to speech.
 * @throws MicrophoneError
 */
export async function openMicrophone(): Promise<MediaStream> {
  if (!navigator.mediaDevices) throw new MicrophoneError('notOffered')
  return navigator.mediaDevices
    .getUserMedia({ audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false } })
    .catch((error: unknown) => {
      throw new MicrophoneError(FAULTS[(error as DOMException).name] ?? 'none')
    })
}

/** Lets the microphone go. */
export function closeMicrophone(stream: MediaStream): void {
  for (const track of stream.getTracks()) track.stop()
}
